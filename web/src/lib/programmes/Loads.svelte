<script lang="ts">
  import type { Schemas } from '$lib/api/client';
  import { tagName } from '$lib/students/tags';
  import { loadText, shareOf } from './weeks';

  /** Every load of the plan over its weeks: what is done, what is planned, and what a week may carry. */
  let { plan }: { plan: Schemas['PlanView'] } = $props();

  /** More weeks than this have room for bars only. */
  const wide = 8;
</script>

{#if plan.loads.length}
  <section aria-label="Loads" class="hidden overflow-x-auto sm:block">
    <table class="w-full table-fixed text-sm">
      <thead class="text-quiet text-xs">
        <tr>
          <th scope="col" class="w-44 pe-3 text-start font-normal">Load a week</th>
          {#each plan.weeks as week (week.number)}
            <th scope="col" class="px-0.5 text-start font-normal"
              ><span class="sr-only">Week </span>{week.number}</th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each plan.loads as load (load.tag + load.side)}
          <tr class="ruled border-t">
            <th scope="row" class="py-1 pe-3 text-start font-normal wrap-break-word">
              {tagName(load.tag)}{load.side ? `, ${load.side}` : ''}
              <span class="text-quiet text-xs">{load.inBodyweight ? 'bodyweight-s' : 'heavy min'}</span>
            </th>
            {#each load.weeks as week (week.week)}
              <td class="px-0.5 py-1 align-bottom">
                <span class="relative block h-5 w-full" aria-hidden="true">
                  <span
                    class="border-base-content absolute inset-x-0 bottom-0 border"
                    style:height={shareOf(week.load, load.most)}
                  ></span>
                  <span
                    class="bg-base-content absolute inset-x-0 bottom-0"
                    style:height={shareOf(week.done, load.most)}
                  ></span>
                  {#if week.ceiling > 0}
                    <span
                      class="bg-error absolute -inset-x-0.5 h-0.5"
                      style:bottom={shareOf(week.ceiling, load.most)}
                    ></span>
                  {/if}
                </span>
                <span class={['figures text-xs', plan.weeks.length > wide && 'sr-only']}
                  >{loadText(week.load)}<span class="sr-only">
                    of {week.ceiling > 0 ? loadText(week.ceiling) : 'no limit'}</span
                  ></span
                >
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="text-quiet mt-1 text-xs">
      Filled is done, outlined is planned, the line above is the most that the week may carry.
    </p>
  </section>
{/if}
