<script lang="ts">
  import { resolve } from '$app/paths';
  import { page } from '$app/state';
  import { api, ask } from '$lib/api/client';
  import { dayAndTime } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import Changes from '$lib/programmes/Changes.svelte';
  import DayPanel from '$lib/programmes/DayPanel.svelte';
  import Wall from '$lib/programmes/Wall.svelte';
  import { dayAt, versionText } from '$lib/programmes/words';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
  let picked = $state<string>();
  const shown = $derived(Number(page.params.number));
  const asked = $derived(
    Promise.all([
      ask(
        api.GET('/api/v1/students/{studentId}/programme/versions/{number}', {
          params: { path: { studentId: student.id, number: shown } },
        }),
      ),
      ask(
        api.GET('/api/v1/students/{studentId}/programme/versions', {
          params: { path: { studentId: student.id } },
        }),
      ),
    ]),
  );
</script>

<div class="px-5 py-5 lg:px-7">
  <Loaded of={asked}>
    {#snippet children([plan, versions])}
      {@const chosen = dayAt(plan, picked)}
      <div class="grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,1fr)_19rem]">
        <div class="grid content-start gap-4">
          <header class="flex flex-wrap items-baseline gap-x-4">
            <h2 class="text-2xl">Version {plan.number}</h2>
            <p class="text-quiet text-sm">{plan.by}, {dayAndTime(plan.at)}: {versionText(plan.why)}</p>
            <a class="link-line ms-auto" href={resolve('/students/[id]/plan', { id: student.id })}
              >The plan that stands</a
            >
          </header>
          <Wall {plan} {picked} onpick={(day) => (picked = day && `${day.day}/${day.half}`)} />
          <Changes changes={plan.changes} />
        </div>
        <aside class="grid content-start gap-5">
          {#if chosen}<DayPanel week={chosen.week} day={chosen.day} />{/if}
          <section>
            <h3>Versions</h3>
            <ul class="ruled mt-1 border-t text-sm">
              {#each versions as version (version.number)}
                <li class="ruled border-b py-1">
                  <a
                    class="link-line"
                    aria-current={version.number === plan.number ? 'page' : undefined}
                    href={resolve('/students/[id]/plan/[number]', {
                      id: student.id,
                      number: String(version.number),
                    })}>Version {version.number}</a
                  >
                  <span class="text-quiet"
                    >{version.by}, {dayAndTime(version.at)}: {versionText(version.why)}</span
                  >
                </li>
              {/each}
            </ul>
          </section>
        </aside>
      </div>
    {/snippet}
  </Loaded>
</div>
