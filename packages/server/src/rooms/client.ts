/** One connected screen: a seat's, or one that watches the truth. */
export interface Client {
  /** The seat's name; undefined watches the truth. */
  readonly seat: string | undefined;
  /** A seat's controls are driven from here, rather than only shown beside the truth. */
  readonly drives: boolean;
  /** The token of the join link that it came by; undefined for who is signed in. */
  readonly link: string | undefined;
  send(bytes: Uint8Array): void;
  /** Has it go. */
  dismiss(goodbye: Goodbye): void;
  /** Whether what was sent before is still on its way; frames are then left out, the next one carries all. */
  readonly congested: boolean;
}

/** What somebody who has to go is told: to come again later, that the server stops, or that there is nothing to come back to. */
export interface Goodbye {
  readonly message: string;
  readonly how: 'later' | 'stopping' | 'final';
}
