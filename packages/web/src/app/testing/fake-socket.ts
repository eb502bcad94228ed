import { encodeMessage, type ServerMessage } from '@eager-ember/core';

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

  hear(message: ServerMessage): void {
    this.take(encodeMessage(message));
  }

  take(bytes: Uint8Array): void {
    this.onmessage?.({ data: bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer });
  }
}
