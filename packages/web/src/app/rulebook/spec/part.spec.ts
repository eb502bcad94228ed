import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { amount } from './formats';
import { Part } from './part';
import { Sentence } from './sentence';
import { SpecContext } from './spec-context';

@Component({
  imports: [Part, Sentence],
  template:
    '<ee-sentence>Starts at <ee-part at="start" [format]="amount" label="start" empty="full" />, <input class="other" />.</ee-sentence>',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly amount = amount;
}

describe('A part of a sentence', () => {
  const value = signal<unknown>(40);
  let problem = '';
  /** What an edit waits for until it is decided. */
  let decided: Promise<void> | undefined;
  let fixture: ComponentFixture<Host>;
  const context = {
    document: signal({ attributes: [] }),
    chapter: () => 'attributes',
    id: () => 'suit',
    value: () => value(),
    described: () => undefined,
    set: async (_: string, next: unknown) => {
      await decided;
      if (problem !== '') return [{ path: '', message: problem }];
      value.set(next);
      return [];
    },
  };
  const element = () => fixture.nativeElement as HTMLElement;
  const button = () => element().querySelector<HTMLButtonElement>('ee-part button')!;
  const field = () => element().querySelector<HTMLInputElement>('ee-part input');

  beforeEach(async () => {
    value.set(40);
    problem = '';
    decided = undefined;
    TestBed.configureTestingModule({ providers: [{ provide: SpecContext, useValue: context }] });
    fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
  });

  const type = async (text: string, key: string) => {
    button().click();
    await fixture.whenStable();
    const box = field()!;
    box.value = text;
    box.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    box.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await fixture.whenStable();
  };

  it('reads as prose and is named for who hears the page', () => {
    expect(element().textContent).toContain('Starts at 40');
    expect(button().getAttribute('aria-label')).toBe('start: 40');
  });

  it('applies on Enter and gives the focus back', async () => {
    await type('55', 'Enter');
    expect(value()).toBe(55);
    expect(field()).toBeNull();
    expect(document.activeElement).toBe(button());
  });

  /** Types, goes on with something else while that is being looked at, and lets it be decided. */
  const meanwhile = async (what: () => void) => {
    let decide = () => undefined as void;
    decided = new Promise((done) => (decide = done));
    await type('55', 'Enter');
    what();
    decide();
    await decided;
    await fixture.whenStable();
  };

  it('leaves the focus with who writes elsewhere by the time that it is decided', async () => {
    const other = element().querySelector<HTMLInputElement>('.other')!;
    await meanwhile(() => other.focus());
    expect(value()).toBe(55);
    expect(field()).toBeNull();
    expect(document.activeElement).toBe(other);
  });

  it('stays open for who writes on in the meantime, and loses nothing of that', async () => {
    await meanwhile(() => {
      field()!.value = '556';
      field()!.dispatchEvent(new Event('input'));
    });
    expect(value()).toBe(55);
    expect(field()!.value).toBe('556');
    field()!.blur();
    await fixture.whenStable();
    expect(value()).toBe(556);
    expect(field()).toBeNull();
  });

  it('restores on Escape', async () => {
    await type('55', 'Escape');
    expect([value(), field()]).toEqual([40, null]);
  });

  it('says under the sentence why a value is refused, and keeps the old one', async () => {
    problem = 'The start 500 is above the maximum 90.';
    await type('500', 'Enter');
    expect(element().querySelector('[role="alert"]')!.textContent).toContain(problem);
    expect(field()!.getAttribute('aria-invalid')).toBe('true');
    expect(value()).toBe(40);
  });

  it('takes the field out when it is emptied, and says what then holds', async () => {
    await type('', 'Enter');
    expect(value()).toBeUndefined();
    expect(button().textContent).toBe('full');
  });
});
