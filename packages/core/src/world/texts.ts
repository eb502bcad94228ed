import { hashText } from './hash.js';

/** The texts of a world: names, and whatever else has no other number. Their cells hold positions in this list; none ever goes. */
export class Texts {
  private list: string[] = [];
  // Derived from the list, as far as it was looked at.
  private places = new Map<string, number>();
  private mixed = { word: 0, count: 0 };

  /** The position of a text, added where it is new. */
  index(text: string): number {
    if (this.places.size !== this.list.length) this.places = new Map(this.list.map((one, i) => [one, i]));
    const known = this.places.get(text);
    if (known !== undefined) return known;
    this.places.set(text, this.list.length);
    return this.list.push(text) - 1;
  }

  at(index: number): string {
    return this.list[index] ?? '';
  }

  copy(): readonly string[] {
    return [...this.list];
  }

  /** Is another list from now on. */
  become(texts: readonly string[]): void {
    this.list = [...texts];
    this.places.clear();
    this.mixed = { word: 0, count: 0 };
  }

  /** A number for the list as it is. */
  get word(): number {
    const { mixed, list } = this;
    while (mixed.count < list.length) {
      mixed.word = Math.imul(mixed.word, 0x9e3779b1) + hashText(list[mixed.count]);
      mixed.count++;
    }
    return mixed.word + list.length;
  }
}
