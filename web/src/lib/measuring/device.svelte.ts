import type { Schemas } from '$lib/api/client';

type Frame = Schemas['DeviceFrame'];
export type DeviceState = 'off' | 'connecting' | 'live' | 'lost';

/** What the device needs of an event stream; the browser's own one, or a test's. */
export type Stream = {
  onmessage: ((event: { data: string }) => void) | null;
  onerror: (() => void) | null;
  close(): void;
};

/** The inclinometer as the bench sees it: the live angle, whether it stands still, and a loss said plainly. */
export class Device {
  state = $state<DeviceState>('off');
  angleDeg = $state<number>();
  stableDeg = $state<number>();
  #stream: Stream | undefined;

  /** @param oncapture is called with the angle that has just come to a stand. */
  constructor(
    private readonly oncapture: (angleDeg: number) => void,
    private readonly open: () => Stream = () =>
      new EventSource('/api/v1/instruments/inclinometer/stream') as unknown as Stream,
  ) {}

  /** Whether a stand is captured by itself. */
  auto = $state(true);

  start(): void {
    if (this.#stream) return;
    this.state = 'connecting';
    this.#stream = this.open();
    this.#stream.onmessage = ({ data }) => this.#hear(JSON.parse(data) as Frame);
    this.#stream.onerror = () => this.#lose();
  }

  #hear(frame: Frame): void {
    if (frame.angleDeg == null) return this.#lose();
    this.state = 'live';
    this.angleDeg = frame.angleDeg;
    this.stableDeg = frame.stableDeg ?? undefined;
    if (frame.captureDeg != null && this.auto) this.oncapture(frame.captureDeg);
  }

  /** The stream tries again by itself; what was captured is with the bench, not here. */
  #lose(): void {
    this.state = 'lost';
    this.angleDeg = undefined;
    this.stableDeg = undefined;
  }

  /** By key: the stable angle, or the one that is seen. */
  capture(): void {
    const angle = this.stableDeg ?? this.angleDeg;
    if (this.state === 'live' && angle !== undefined) this.oncapture(angle);
  }

  stop(): void {
    this.#stream?.close();
    this.#stream = undefined;
    this.state = 'off';
    this.angleDeg = undefined;
    this.stableDeg = undefined;
  }
}
