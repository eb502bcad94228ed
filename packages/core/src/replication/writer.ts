/**
 * Writes the few kinds of MessagePack value that frames are made of, one after the other into one growing buffer. A
 * general encoder allocates for each call, and a room calls it for every chunk of every seat twenty times a second.
 *
 * Source of the codes: the MessagePack specification, format overview.
 */
export class FrameWriter {
  private bytes = new Uint8Array(1024);
  private view = new DataView(this.bytes.buffer);
  private at = 0;

  private need(count: number): void {
    if (this.at + count <= this.bytes.length) return;
    const grown = new Uint8Array(Math.max(this.bytes.length * 2, this.at + count));
    grown.set(this.bytes);
    this.bytes = grown;
    this.view = new DataView(grown.buffer);
  }

  private byte(value: number): void {
    this.bytes[this.at++] = value;
  }

  /** A whole number, in as few bytes as it needs; beyond 32 bits as a double, which is exact up to 2^53. */
  int(value: number): void {
    this.need(9);
    if (value >= 0 && value < 0x80) this.byte(value);
    else if (value < 0 && value >= -32) this.byte(0x100 + value);
    else if (value >= 0 && value < 0x100) this.coded(0xcc, value, 1);
    else if (value >= 0 && value < 0x10000) this.coded(0xcd, value, 2);
    else if (value >= 0 && value < 0x100000000) this.coded(0xce, value, 4);
    else if (value < 0 && value >= -0x80) this.coded(0xd0, value, 1);
    else if (value < 0 && value >= -0x8000) this.coded(0xd1, value, 2);
    else if (value < 0 && value >= -0x80000000) this.coded(0xd2, value, 4);
    else {
      this.byte(0xcb);
      this.view.setFloat64(this.at, value);
      this.at += 8;
    }
  }

  private coded(code: number, value: number, size: 1 | 2 | 4): void {
    this.byte(code);
    if (size === 1) this.byte(value & 0xff);
    else if (size === 2) this.view.setInt16(this.at, value);
    else this.view.setInt32(this.at, value);
    if (size > 1) this.at += size;
  }

  /** The head of a list of `count` values, which follow. */
  list(count: number): void {
    this.need(5);
    if (count < 16) this.byte(0x90 | count);
    else if (count < 0x10000) this.coded(0xdc, count, 2);
    else this.coded(0xdd, count, 4);
  }

  text(value: string): void {
    const utf8 = encodeUtf8(value);
    this.need(5 + utf8.length);
    if (utf8.length < 32) this.byte(0xa0 | utf8.length);
    else if (utf8.length < 0x100) this.coded(0xd9, utf8.length, 1);
    else this.coded(0xda, utf8.length, 2);
    this.bytes.set(utf8, this.at);
    this.at += utf8.length;
  }

  /** Bytes that were written before. */
  binary(bytes: Uint8Array): void {
    this.need(5 + bytes.length);
    if (bytes.length < 0x100) this.coded(0xc4, bytes.length, 1);
    else if (bytes.length < 0x10000) this.coded(0xc5, bytes.length, 2);
    else this.coded(0xc6, bytes.length, 4);
    this.bytes.set(bytes, this.at);
    this.at += bytes.length;
  }

  /** What was written since the last call, as bytes of its own. */
  take(): Uint8Array {
    const taken = this.bytes.slice(0, this.at);
    this.at = 0;
    return taken;
  }
}

/** UTF-8 without the platform's encoder: texts in frames are names, a few characters each. */
function encodeUtf8(text: string): number[] {
  const bytes: number[] = [];
  for (const character of text) {
    const code = character.codePointAt(0)!;
    if (code < 0x80) bytes.push(code);
    else if (code < 0x800) bytes.push(0xc0 | (code >> 6), 0x80 | (code & 0x3f));
    else if (code < 0x10000) bytes.push(0xe0 | (code >> 12), 0x80 | ((code >> 6) & 0x3f), 0x80 | (code & 0x3f));
    else bytes.push(0xf0 | (code >> 18), 0x80 | ((code >> 12) & 0x3f), 0x80 | ((code >> 6) & 0x3f), 0x80 | (code & 0x3f));
  }
  return bytes;
}
