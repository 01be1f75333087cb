export const TASK_BY = ['us', 'client', 'host'] as const;
export const TASK_WHEN = ['before', 'after'] as const;

/** Something that has to be done at a web host, besides records. */
export interface HostTask {
  /** Lasting, so that a move which was planned with it finds it again. */
  readonly id: string;
  readonly title: string;
  readonly by: (typeof TASK_BY)[number];
  /** `before`: the cutover waits for it. `after`: it can only be done once the new values are served. */
  readonly when: (typeof TASK_WHEN)[number];
  /** It ends a wait: it cannot be done before the records that the host looks for are seen in the live zone. */
  readonly waits: boolean;
  /** It leads visitors of one name on to another, where a web server did so that is left. */
  readonly redirects: boolean;
  /** How, or which states are to be expected meanwhile and how long they take. */
  readonly note: string;
}
