import { api, ask, type Schemas } from '$lib/api/client';

/** Who is signed in. */
class Account {
  me = $state<Schemas['MeResponse']>();

  async load(): Promise<Schemas['MeResponse']> {
    this.me = await ask(api.GET('/api/v1/accounts/me'));
    return this.me;
  }

  /** An assistant reads only. */
  get mayWrite(): boolean {
    return this.me?.user?.role === 'owner' || this.me?.user?.role === 'coach';
  }
}

export const account = new Account();
