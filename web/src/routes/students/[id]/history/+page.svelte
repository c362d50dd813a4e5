<script lang="ts">
  import { api, ask, type Schemas } from '$lib/api/client';
  import { catalogue } from '$lib/catalogue/catalogue.svelte';
  import { dayAndTime, longDay } from '$lib/parts/format';
  import Loaded from '$lib/parts/Loaded.svelte';
  import FactList from '$lib/students/FactList.svelte';
  import { checkInLine } from '$lib/students/checkIn';
  import { consentName } from '$lib/students/consents';
  import { bodyFieldName } from '$lib/students/history';
  import { theStudent } from '$lib/students/student.svelte';
  import { tagName } from '$lib/students/tags';

  const student = theStudent();
  const history = $derived.by(() => {
    void student.heard;
    return ask(
      api.GET('/api/v1/students/{studentId}/history', { params: { path: { studentId: student.id } } }),
    );
  });

  function told(line: Schemas['HistoryLine']): string {
    const tags = (line.tags ?? []).map(tagName).join(', ');
    switch (line.kind) {
      case 'answer':
        return `${catalogue.question(line.field!)?.label ?? line.field}: ${line.before ? `${line.before}, now ` : ''}${line.after}`;
      case 'screened':
        return 'The intake screen was gone through';
      case 'somethingChanged':
        return `Something changed: “${line.note}”`;
      case 'clearance':
        return `Clearance by a ${line.note}, until ${longDay(line.after!)}: ${tags}`;
      case 'withdrawal':
        return `A clearance was withdrawn: “${line.note}”`;
      case 'consent':
        return `Consent, ${consentName(line.field as Schemas['ConsentKind']).toLowerCase()}: ${line.after}${line.note ? `, said by ${line.note}` : ''}`;
      case 'checkIn':
        return `Before a session: ${checkInLine(line.field, line.after, line.note)}`;
      case 'review':
        return `The bar on ${tags} was reviewed: “${line.note}”`;
      default:
        return line.field
          ? `${bodyFieldName(line.field)}: ${line.before || 'empty'}, now ${line.after || 'empty'}`
          : 'Written down for the first time';
    }
  }
</script>

<div class="grid max-w-4xl gap-8 px-5 py-5 lg:px-7">
  <FactList student={student.id} heard={student.heard} />
  <section aria-label="Who wrote down what">
    <h2 class="mb-3">Who wrote down what</h2>
    <Loaded of={history}>
      {#snippet children(lines)}
        <ul class="ruled border-t">
          {#each lines as line, i (i)}
            <li class="ruled flex flex-wrap justify-between gap-x-4 border-b py-2">
              <span class="min-w-0 wrap-break-word">{told(line)}</span>
              <span class="text-quiet text-sm">{dayAndTime(line.at)} · {line.by}</span>
            </li>
          {:else}
            <li class="py-2">Nothing has been written down yet.</li>
          {/each}
        </ul>
      {/snippet}
    </Loaded>
  </section>
</div>
