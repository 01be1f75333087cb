/** What the agency knows of a place; names absolute with final dot, addresses as text. */
export interface HostKnowledge {
  readonly name: string;
  readonly nameservers: readonly string[];
  readonly addresses: readonly string[];
  /** Where an alias to this web host leads. */
  readonly aliasTarget: string | undefined;
  /** Records that the web host demands, below the apex; `{zone}` stands for the domain. */
  readonly requires: readonly { readonly owner: string; readonly type: string; readonly data: string }[];
}
