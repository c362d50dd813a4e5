import { api, ask, type Schemas } from '$lib/api/client';

/** The shipped content's words, loaded once. */
class Catalogue {
  content = $state<Schemas['CatalogueResponse']>();
  #loading: Promise<void> | undefined;

  load(): Promise<void> {
    this.#loading ??= ask(api.GET('/api/v1/catalogue')).then((content) => {
      this.content = content;
    });
    return this.#loading;
  }

  /** Loads it anew after the studio has changed a measure. */
  reload(): Promise<void> {
    this.#loading = undefined;
    return this.load();
  }

  measure(key: string): Schemas['Measure'] {
    return this.content!.measures.find((m) => m.key === key)!;
  }

  /** By its key or one that it had before; what was stored of a drill that is gone is shown by its key. */
  drill(key: string): Schemas['DrillView'] {
    return (
      this.content!.drills.find((d) => d.key === key) ??
      this.content!.drills.find((d) => d.was.includes(key)) ?? {
        key,
        was: [],
        name: key.replaceAll('-', ' '),
        purpose: '',
        felt: '',
        kind: 'skill',
        sideMeans: null,
        phase: 'strong',
        testOnly: false,
        quickMeasure: null,
        props: [],
        cues: [],
        variants: [],
      }
    );
  }

  variant(drill: string, key: string): string {
    return this.drill(drill).variants.find((v) => v.key === key)?.name ?? key;
  }

  ladder(key: string): Schemas['Ladder'] {
    return this.content!.ladders.find((l) => l.key === key)!;
  }

  question(key: string): Schemas['IntakeQuestion'] | undefined {
    return this.content!.questions.find((q) => q.key === key);
  }
}

export const catalogue = new Catalogue();
