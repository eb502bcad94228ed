/** Why something that was asked for is not done: the reason by its name, and what its words need. */
export type Refusal<Reason extends string, Data extends object = object> = { readonly reason: Reason } & Data;
