import { encodeMessage, type ServerMessage, type Welcome, type WireSchema } from '@eager-ember/core';

/** A socket that goes nowhere. */
export class FakeSocket {
  static readonly all: FakeSocket[] = [];
  static readonly OPEN = 1;
  readyState = 1;
  binaryType = '';
  onopen: (() => void) | undefined;
  onmessage: ((event: { data: ArrayBuffer }) => void) | undefined;
  onclose: (() => void) | undefined;

  constructor(readonly url: string) {
    FakeSocket.all.push(this);
  }

  send(): void {
    // Nobody is there to hear it.
  }

  close(): void {
    this.readyState = 3;
  }

  /** Is let in to a room of a ruleset with this schema: to the truth, unless it is said to which seat. */
  welcome(schema: WireSchema, seat: Pick<Welcome, 'row' | 'seat'> = {}): void {
    this.hear({ t: 'welcome', room: 'slate-heron', ruleset: 'A', revision: 1, speed: 1, seats: [], schema, ...seat });
  }

  hear(message: ServerMessage): void {
    this.take(encodeMessage(message));
  }

  take(bytes: Uint8Array): void {
    this.onmessage?.({ data: bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer });
  }
}
