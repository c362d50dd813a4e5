import { api, ask, type Schemas } from '$lib/api/client';

/** Whose verdict a version of a ladder would change; judged by the server before anybody is moved. */
export async function changesUnder(ladder: string, version: number): Promise<Schemas['VerdictChange'][]> {
  const path = { params: { path: { ladder, version } } };
  const to = await ask(api.GET('/api/v1/ladders/{ladder}/versions/{version}', path));
  return (await ask(api.POST('/api/v1/ladders/try', { body: to }))).changes;
}
