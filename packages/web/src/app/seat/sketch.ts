type Context = CanvasRenderingContext2D;
/** Every stroke that changes the canvas or the path, and takes plain values. */
type Stroke =
  | 'arc'
  | 'beginPath'
  | 'clip'
  | 'closePath'
  | 'fill'
  | 'fillRect'
  | 'fillText'
  | 'lineTo'
  | 'moveTo'
  | 'rect'
  | 'roundRect'
  | 'setTransform'
  | 'stroke'
  | 'strokeRect';
type Setting = 'fillStyle' | 'font' | 'globalAlpha' | 'lineWidth' | 'strokeStyle' | 'textAlign';

/** What pictures are drawn with: as much of a canvas’s context as they need. */
export type Pen = Pick<Context, Stroke | Setting | 'measureText' | 'restore' | 'save' | 'setLineDash'>;

type Settings = Pick<Context, Setting>;
/** What was put down, one after the other: what is called or set, how many values it is given, and these. */
type Marks = (number | string | CanvasGradient | CanvasPattern)[];

const FIRST: Settings = { fillStyle: '#000', font: '', globalAlpha: 1, lineWidth: 1, strokeStyle: '#000', textAlign: 'start' };

/**
 * A picture that is put down before it is drawn, and is drawn only where it is another than the last: filling paths is what
 * takes long, and most pictures of a quiet arena are the same.
 */
export class Sketch implements Pen {
  private marks: Marks = [];
  private drawn: Readonly<Marks> = [];
  private settings = { ...FIRST };
  private saved: Settings[] = [];

  readonly arc: Context['arc'] = this.stroked('arc');
  readonly beginPath: Context['beginPath'] = this.stroked('beginPath');
  readonly clip: Context['clip'] = this.stroked('clip');
  readonly closePath: Context['closePath'] = this.stroked('closePath');
  readonly fill: Context['fill'] = this.stroked('fill');
  readonly fillRect: Context['fillRect'] = this.stroked('fillRect');
  readonly fillText: Context['fillText'] = this.stroked('fillText');
  readonly lineTo: Context['lineTo'] = this.stroked('lineTo');
  readonly moveTo: Context['moveTo'] = this.stroked('moveTo');
  readonly rect: Context['rect'] = this.stroked('rect');
  readonly roundRect: Context['roundRect'] = this.stroked('roundRect');
  readonly setTransform: Context['setTransform'] = this.stroked('setTransform');
  readonly stroke: Context['stroke'] = this.stroked('stroke');
  readonly strokeRect: Context['strokeRect'] = this.stroked('strokeRect');

  constructor(private readonly context: Context) {}

  private stroked(name: Stroke): (...values: unknown[]) => void {
    return (...values) => this.put(name, values as Marks);
  }

  private put(name: string, values: Readonly<Marks>): void {
    this.marks.push(name, values.length);
    for (const value of values) this.marks.push(value);
  }

  private set<S extends Setting>(name: S, value: Settings[S]): void {
    this.settings[name] = value;
    this.marks.push(name, 1, value);
  }

  setLineDash(dash: number[]): void {
    this.put('setLineDash', dash);
  }

  get fillStyle(): Settings['fillStyle'] {
    return this.settings.fillStyle;
  }
  set fillStyle(value) {
    this.set('fillStyle', value);
  }

  get font(): string {
    return this.settings.font;
  }
  set font(value) {
    this.set('font', value);
  }

  get globalAlpha(): number {
    return this.settings.globalAlpha;
  }
  set globalAlpha(value) {
    this.set('globalAlpha', value);
  }

  get lineWidth(): number {
    return this.settings.lineWidth;
  }
  set lineWidth(value) {
    this.set('lineWidth', value);
  }

  get strokeStyle(): Settings['strokeStyle'] {
    return this.settings.strokeStyle;
  }
  set strokeStyle(value) {
    this.set('strokeStyle', value);
  }

  get textAlign(): CanvasTextAlign {
    return this.settings.textAlign;
  }
  set textAlign(value) {
    this.set('textAlign', value);
  }

  save(): void {
    this.saved.push({ ...this.settings });
    this.put('save', []);
  }

  restore(): void {
    this.settings = { ...(this.saved.pop() ?? FIRST) };
    this.put('restore', []);
  }

  measureText(text: string): TextMetrics {
    this.context.font = this.font;
    return this.context.measureText(text);
  }

  /**
   * Draws what was put down since the last picture, unless that looks the same.
   * @param anew draws it in any case: the canvas is empty
   */
  draw(anew: boolean): void {
    if (anew || !isSame(this.marks, this.drawn)) this.play();
    this.drawn = this.marks;
    this.marks = [];
    this.settings = { ...FIRST };
    this.saved = [];
  }

  private play(): void {
    const { context, marks } = this;
    context.save();
    for (let at = 0; at < marks.length;) {
      const [name, count] = [marks[at] as string, marks[at + 1] as number];
      const values = marks.slice(at + 2, (at += 2 + count));
      if (name === 'setLineDash') context.setLineDash(values as number[]);
      else if (name in FIRST) Object.assign(context, { [name]: values[0] });
      else (context[name as Stroke] as (...all: unknown[]) => void)(...values);
    }
    context.restore();
  }
}

function isSame(a: Readonly<Marks>, b: Readonly<Marks>): boolean {
  if (a.length !== b.length) return false;
  // By hand: it goes over thousands of marks twenty times a second.
  for (let at = 0; at < a.length; at++) if (a[at] !== b[at]) return false;
  return true;
}
