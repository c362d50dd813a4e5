import { getContext, setContext } from 'svelte';
import { api, ask, Refusal, type Schemas } from '$lib/api/client';

const key = Symbol('student');

/** The student whose pages are open: loaded once by the layout, loaded again after each change. */
export class OpenStudent {
  page = $state<Schemas['StudentPage']>();
  /** The skill that is looked at; none before they are on a ladder. */
  skill = $state<Schemas['SkillPage']>();
  failed = $state<string>();
  /** Counts what was saved by anyone: read by whatever is to be loaded again with it. */
  heard = $state(0);
  /** What somebody else saved last. */
  news = $state<{ by: string; at: string }>();

  constructor(readonly id: string) {}

  /** Something was saved; said where it was somebody else. */
  async hear(pulse: Schemas['PulseView']): Promise<void> {
    await this.load();
    this.heard++;
    if (!pulse.mine && pulse.at) this.news = { by: pulse.by ?? 'Somebody', at: pulse.at };
  }

  /** Loads the person and the skill that is looked at, or the first one. */
  async load(wanted = this.skill?.skill): Promise<void> {
    try {
      const path = { studentId: this.id };
      const page = await ask(api.GET('/api/v1/students/{studentId}', { params: { path } }));
      const skill = page.skills.find((s) => s.skill === wanted)?.skill ?? page.skills[0]?.skill;
      this.skill = skill
        ? await ask(
            api.GET('/api/v1/students/{studentId}/skills/{skill}', { params: { path: { ...path, skill } } }),
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
