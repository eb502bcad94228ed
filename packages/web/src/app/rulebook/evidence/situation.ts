import { inject, Injectable } from '@angular/core';
import type { PinAction, Problem, ProposedSituation } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { Editor } from '../../store/editor';
import { entriesOf, type EntryJson, freshId } from '../entries';

export type PinJson = ProposedSituation['pins'][number];

/** The field by which a situation says what it tries out. */
export const ABOUT: Readonly<Record<string, string>> = { attributes: 'attribute', effects: 'effect', abilities: 'ability' };

/** A pin that can be added, as a menu offers it. */
export interface NewPin {
  readonly label: string;
  readonly action: PinAction;
  readonly from?: 'other';
}

/** Edits the situation of an entry. One that was only proposed is written down with the first edit. */
@Injectable({ providedIn: 'root' })
export class Situations {
  private readonly editor = inject(Editor);

  /** The situation that is written down for an entry. */
  of(chapter: string, id: string): EntryJson | undefined {
    return entriesOf(this.editor.document(), 'situations').find((situation) => situation[ABOUT[chapter]] === id);
  }

  /** Makes the pins of an entry's situation anew, from those that are there by then. */
  put(
    chapter: string,
    id: string,
    now: ProposedSituation,
    make: (pins: readonly PinJson[]) => readonly PinJson[],
    what: string,
  ): Promise<readonly Problem[]> {
    return this.editor.propose((document): readonly Operation[] => {
      const all = entriesOf(document, 'situations');
      const index = all.findIndex((situation) => situation[ABOUT[chapter]] === id);
      if (index >= 0) {
        const written = (all[index]['pins'] as readonly PinJson[] | undefined) ?? [];
        return [{ op: 'add', path: `/situations/${index}/pins`, value: make(written) }];
      }
      const label = `${entriesOf(document, chapter).find((entry) => entry.id === id)?.label ?? id} tried out`;
      const fresh = freshId(
        label,
        all.map((situation) => situation.id),
      );
      const value = { id: fresh, label, [ABOUT[chapter]]: id, seconds: now.seconds, pins: make(now.pins) };
      return 'situations' in document
        ? [{ op: 'add', path: '/situations/-', value }]
        : [{ op: 'add', path: '/situations', value: [value] }];
    }, what);
  }

  /** Takes a situation out: the proposed one is played again. */
  forget(chapter: string, id: string): Promise<readonly Problem[]> {
    return this.editor.propose((document): readonly Operation[] => {
      const index = entriesOf(document, 'situations').findIndex((situation) => situation[ABOUT[chapter]] === id);
      return index < 0 ? [] : [{ op: 'remove', path: `/situations/${index}` }];
    }, 'take the pins out');
  }

  /** What can be done to an entry from outside. */
  offered(chapter: string, id: string): readonly NewPin[] {
    const document = this.editor.document();
    const entries = (of: string) => entriesOf(document, of);
    const entry = entries(chapter).find((each) => each.id === id);
    const effects = entries('effects').filter((effect) => effect.id !== id);
    const [status] = entries('statuses');
    const pool = entries('attributes').find((attribute) => attribute['kind'] === 'pool');
    const others: NewPin[] = [
      ...(effects[0] ? [{ label: 'an effect', action: { do: 'apply', effect: effects[0].id } }] : []),
      ...(status
        ? [
            { label: 'a status', action: { do: 'grant', status: status.id } },
            { label: 'a status taken away', action: { do: 'withdraw', status: status.id } },
          ]
        : []),
    ];
    if (chapter === 'effects') {
      const apply = { do: 'apply', effect: id };
      return [
        { label: 'apply it', action: apply },
        { label: 'apply it, from another', action: apply, from: 'other' },
        { label: 'end it', action: { do: 'end', effect: id } },
        ...(pool ? [{ label: `a hit on ${pool.label.toLowerCase()}`, action: { do: 'hurt', attribute: pool.id, amount: 10 } }] : []),
        ...others,
      ];
    }
    const [kind, max] = [entry?.['kind'], entry?.['max']];
    if (kind === 'stat') return [{ label: 'another base', action: { do: 'set', attribute: id, value: 10 } }, ...others];
    const [less, more] = kind === 'pool' ? ['hurt', 'heal'] : ['take', 'give'];
    const linked = typeof max === 'string' && entries('attributes').some((attribute) => attribute.id === max);
    return [
      { label: 'lose some', action: { do: less, attribute: id, amount: 10 } },
      { label: 'gain some', action: { do: more, attribute: id, amount: 10 } },
      ...(max === undefined ? [] : [{ label: 'fill it', action: { do: more, attribute: id, amount: max } }]),
      ...(linked ? [{ label: 'maximum + 20', action: { do: 'set', attribute: String(max), value: `${String(max)} + 20` } }] : []),
      ...others,
    ];
  }
}
