import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';

type Point = Schemas['PicturePoint'];

/** Landmarks as they are placed on a picture, in the order that the view asks for; the core computes. */
export class Landmarks {
  points = $state<Point[]>([]);
  horizon = $state<Point[]>([]);
  facing = $state<Schemas['Facing']>('left');
  /** Which point the arrow keys move; the horizon's two come after the landmarks. */
  active = $state(0);
  onHorizon = $state(false);
  angles = $state<Schemas['PlacementAngles']>();
  problem = $state<string>();
  #asked = 0;

  constructor(
    readonly view: string,
    readonly names: string[],
    readonly width: number,
    readonly height: number,
  ) {}

  /** What is to be placed next; nothing when all are placed. */
  get wanted(): string | undefined {
    if (this.onHorizon) return ['one end of the horizon', 'its other end'][this.horizon.length];
    return this.names[this.points.length];
  }

  get complete(): boolean {
    return this.points.length === this.names.length;
  }

  /** A click or a tap: the next landmark; when all are placed, the chosen one moves there. */
  put(point: Point): void {
    const at = this.#inside(point);
    const list = this.onHorizon ? this.horizon : this.points;
    const most = this.onHorizon ? 2 : this.names.length;
    if (list.length < most) {
      list.push(at);
      this.active = list.length - 1;
      if (this.onHorizon && list.length === 2) this.onHorizon = false;
    } else list[this.active] = at;
    void this.compute();
  }

  move(index: number, point: Point, horizon = false): void {
    (horizon ? this.horizon : this.points)[index] = this.#inside(point);
    void this.compute();
  }

  /** Arrow keys: one pixel of the picture, or ten. */
  nudge(dx: number, dy: number): void {
    const point = this.points[this.active];
    if (point) this.move(this.active, { x: point.x + dx, y: point.y + dy });
  }

  choose(index: number): void {
    if (index < this.points.length) this.active = index;
  }

  back(): void {
    if (this.onHorizon && this.horizon.length) this.horizon.pop();
    else this.points.pop();
    this.active = Math.max(0, this.points.length - 1);
    void this.compute();
  }

  markHorizon(): void {
    this.horizon = [];
    this.onHorizon = true;
    void this.compute();
  }

  clearHorizon(): void {
    this.horizon = [];
    this.onHorizon = false;
    void this.compute();
  }

  turn(): void {
    this.facing = this.facing === 'left' ? 'right' : 'left';
    void this.compute();
  }

  show(placement: Schemas['Placement']): void {
    this.points = placement.points.map((p) => ({ ...p }));
    this.horizon = (placement.horizon ?? []).map((p) => ({ ...p }));
    this.facing = placement.facing ?? 'left';
    this.active = 0;
    void this.compute();
  }

  clear(): void {
    this.points = [];
    this.active = 0;
    this.angles = undefined;
  }

  get placement(): Schemas['Placement'] {
    return {
      points: $state.snapshot(this.points),
      horizon: this.horizon.length === 2 ? $state.snapshot(this.horizon) : null,
      facing: this.facing,
    };
  }

  #inside({ x, y }: Point): Point {
    return { x: Math.max(0, Math.min(this.width, x)), y: Math.max(0, Math.min(this.height, y)) };
  }

  async compute(): Promise<void> {
    const asked = ++this.#asked;
    if (!this.complete) {
      this.angles = undefined;
      this.problem = undefined;
      return;
    }
    try {
      const angles = await ask(
        api.POST('/api/v1/compute/landmarks', { body: { view: this.view, placement: this.placement } }),
      );
      if (asked === this.#asked) [this.angles, this.problem] = [angles, undefined];
    } catch (error) {
      if (asked === this.#asked)
        [this.angles, this.problem] = [undefined, error instanceof Refusal ? error.code : 'unexpected'];
    }
  }

  /** Keeps the placement on the server. */
  async keep(studentId: string, pictureId: string): Promise<Schemas['MarkView']> {
    return ask(
      api.POST('/api/v1/students/{studentId}/pictures/{pictureId}/marks', {
        params: { path: { studentId, pictureId } },
        body: { id: newId(), placement: this.placement },
      }),
    );
  }
}
