<script lang="ts">
  import { resolve } from '$app/paths';
  import CalendarLinks from '$lib/calendar/CalendarLinks.svelte';
  import Loaded from '$lib/parts/Loaded.svelte';
  import PlanRoom from '$lib/programmes/PlanRoom.svelte';
  import { api, ask } from '$lib/api/client';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  let turn = $state(0);
  const asked = $derived.by(() => {
    void student.heard;
    void turn;
    return ask(
      api.GET('/api/v1/students/{studentId}/programme', { params: { path: { studentId: student.id } } }),
    );
  });
</script>

<div class="px-5 py-5 lg:px-7">
  <Loaded of={asked}>
    {#snippet children(page)}
      {#if page.suggested || page.plan}
        <PlanRoom {student} {page} onchanged={() => turn++} />
        {#if page.plan}<div class="mt-8 max-w-xl"><CalendarLinks student={student.id} /></div>{/if}
      {:else if student.page && !student.page.screened}
        <p>
          First the <a class="link-line" href={resolve('/students/[id]/cautions', { id: student.id })}
            >intake screen</a
          > is answered.
        </p>
      {:else}
        <p>
          First they are <a class="link-line" href={resolve('/students/[id]', { id: student.id })}
            >put on a ladder</a
          >.
        </p>
      {/if}
    {/snippet}
  </Loaded>
</div>
