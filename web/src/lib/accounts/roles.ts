import type { Schemas } from '$lib/api/client';

export const roles: Record<Schemas['Role'], string> = {
  owner: 'Owner',
  coach: 'Coach',
  assistant: 'Assistant, reads only',
};
