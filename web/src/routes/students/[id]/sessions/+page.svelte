<script lang="ts">
  import { resolve } from '$app/paths';
  import { api, ask, type Schemas } from '$lib/api/client';
  import { dayAndTime, minutes, shortDay, today } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import { skillNames } from '$lib/planning/phases';
  import NextSession from '$lib/planning/NextSession.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  const sessions = $derived.by(() => {
    void student.heard;
    return ask(
      api.GET('/api/v1/students/{studentId}/sessions', { params: { path: { studentId: student.id } } }),
    );
  });

  const stateOf = (session: Schemas['SessionLine']): string =>
    session.endedAt
      ? `${session.logged ? 'logged' : 'ended, nothing logged'} ${dayAndTime(session.endedAt)}`
      : session.startedAt
        ? 'under way'
        : session.date < today()
          ? 'not run'
          : 'not run yet';
</script>

<div class="max-w-3xl px-5 py-5 lg:px-7">
  {#if student.page?.skills.length}<div class="mb-5"><NextSession {student} /></div>{/if}
  <Loaded of={sessions}>
    {#snippet children(list)}
      {#if list.length === 0}
        <p>
          No sessions yet.
          {#if student.page && !student.page.screened}
            First the <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}
              >intake screen</a
            > is answered.
          {:else if !student.page?.skills.length}
            First they are <a class="link-line" href={resolve('/students/[id]', { id: student.id })}
              >put on a ladder</a
            >.
          {/if}
        </p>
      {/if}
      <ul class={[list.length > 0 && 'ruled border-t']}>
        {#each list as session (session.id)}
          <li class="ruled border-b">
            <a
              class="grid gap-x-4 py-3 hover:underline sm:grid-cols-[7rem_minmax(0,1fr)_9rem_13rem]"
              href={resolve('/sessions/[id]', { id: session.id })}
            >
              <strong>{shortDay(session.date)}</strong>
              <span>{skillNames(session.skill, session.beside)}</span>
              <span class="text-quiet tabular-nums sm:text-end"
                >{minutes(session.totalSeconds)} min planned</span
              >
              <span class="sm:text-end">{stateOf(session)}</span>
            </a>
          </li>
        {/each}
      </ul>
    {/snippet}
  </Loaded>
</div>
