import { Copy, readServerMessage, type ServerMessage, type Welcome } from '@eager-ember/core';
import type { Client, Goodbye } from '../rooms/client.js';
import type { Room } from '../rooms/room.js';

/** A screen without a socket. */
export class Fake implements Client {
  copy: Copy | undefined;
  welcome: Welcome | undefined;
  readonly messages: ServerMessage[] = [];
  frames = 0;
  congested = false;
  goodbye: Goodbye | undefined;

  constructor(
    readonly room: Room,
    readonly seat: string | undefined,
    readonly drives = true,
    readonly link: string | undefined = undefined,
  ) {
    room.connect(this);
  }

  dismiss(goodbye: Goodbye): void {
    this.goodbye = goodbye;
  }

  send(bytes: Uint8Array): void {
    const heard = readServerMessage(bytes);
    if ('frame' in heard) {
      this.frames++;
      if (this.copy?.applyDecoded(heard.frame)) this.room.acknowledge(this, this.copy.frame);
      return;
    }
    this.messages.push(heard.message);
    if (heard.message.t !== 'welcome') return;
    this.welcome = heard.message;
    this.copy = new Copy(heard.message.schema);
  }

  value(attribute: string, row = this.welcome!.row!): unknown {
    return this.copy!.value('attributes', row, attribute);
  }
}
