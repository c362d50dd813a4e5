import { getContext, setContext } from 'svelte';
import { api, ask, Refusal, type Schemas } from '$lib/api/client';

const key = Symbol('student');

/** The student whose pages are open: loaded once by the layout, loaded again after each change. */
export class OpenStudent {
  page = $state<Schemas['StudentPage']>();
  skill = $state<Schemas['SkillPage']>();
  failed = $state<string>();

  constructor(readonly id: string) {}

  async load(): Promise<void> {
    try {
      const path = { studentId: this.id };
      const page = await ask(api.GET('/api/v1/students/{studentId}', { params: { path } }));
      this.skill = page.onLadder
        ? await ask(
            api.GET('/api/v1/students/{studentId}/skills/{ladder}', {
              params: { path: { ...path, ladder: 'front-split' } },
            }),
          )
        : undefined;
      this.page = page;
      this.failed = undefined;
    } catch (error) {
      this.failed = error instanceof Refusal ? error.code : 'unexpected';
    }
  }
}

export const openStudent = (student: () => OpenStudent): void => {
  setContext(key, student);
};

export const theStudent = (): OpenStudent => getContext<() => OpenStudent>(key)();
