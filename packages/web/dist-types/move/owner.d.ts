export declare function ownerBelow(owner: string, domain: string): string;
