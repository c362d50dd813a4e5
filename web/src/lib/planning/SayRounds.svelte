<script lang="ts">
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { pageText, problemText } from '$lib/parts/problems';
  import { parseNumber } from '$lib/students/body';

  interface Props {
    student: string;
    rounds: readonly Schemas['UnsaidRound'][];
    onsaid: () => void;
    onleave: () => void;
  }

  let { student, rounds, onsaid, onleave }: Props = $props();
  let typed = $state<Record<string, string>>({});
  let wrong = $state<string>();
  let busy = $state(false);

  const planned = (round: Schemas['UnsaidRound']) => String(round.seconds ?? round.cleanReps ?? '');
  const unit = (round: Schemas['UnsaidRound']) => (round.seconds != null ? 'seconds' : 'repetitions');

  /** Each round that was seen becomes a fact with its number; one that is left empty stays practice. */
  async function say(event: SubmitEvent) {
    event.preventDefault();
    wrong = undefined;
    const said = rounds.filter((r) => (typed[r.id] ?? '').trim() !== '');
    const numbers = said.map((r) => parseNumber(typed[r.id]!));
    if (numbers.some((n) => n === null || Number.isNaN(n) || n < 0)) {
      wrong = 'Write a number, such as 21.';
      return;
    }
    busy = true;
    try {
      for (const [i, round] of said.entries())
        await ask(
          api.POST('/api/v1/students/{studentId}/corrections', {
            params: { path: { studentId: student } },
            body: {
              id: newId(),
              what: 'set',
              of: round.id,
              reason: 'Its number was said on the sheet.',
              instead: {
                [round.seconds != null ? 'seconds' : 'cleanReps']: numbers[i],
                confirmed: true,
              } as Schemas['Instead'],
            },
          }),
        );
      onsaid();
    } catch (error) {
      const refusal = error as Refusal;
      wrong = refusal.problems[0] ? problemText(refusal.problems[0]) : pageText(refusal.code);
    } finally {
      busy = false;
    }
  }
</script>

<form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={say} novalidate>
  {#each rounds as round, i (round.id)}
    <label class="grid text-sm">
      Round {i + 1}, {unit(round)}
      <input
        class="input input-sm w-24"
        inputmode="decimal"
        placeholder={planned(round)}
        bind:value={typed[round.id]}
      />
    </label>
  {/each}
  <button class="btn btn-primary btn-sm" disabled={busy}>It was seen</button>
  <button type="button" class="btn btn-ghost btn-sm" onclick={onleave}>Leave it</button>
  {#if wrong}<p class="text-error basis-full text-sm font-semibold" role="alert">{wrong}</p>{/if}
</form>
