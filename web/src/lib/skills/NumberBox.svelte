<script lang="ts">
  import { parseNumber } from '$lib/students/body';

  interface Props {
    label: string;
    value: number;
    changed: () => void;
  }

  let { label, value = $bindable(), changed }: Props = $props();
  let typed = $state<string>();
  let wrong = $state(false);

  /** A word stays on the screen and is marked; the number is taken when it is one. */
  function type(text: string) {
    typed = text;
    const number = parseNumber(text);
    wrong = number === null || Number.isNaN(number);
    if (!wrong) {
      value = number!;
      changed();
    }
  }
</script>

<input
  class="input input-sm w-16"
  inputmode="decimal"
  aria-label={label}
  aria-invalid={wrong}
  value={typed ?? String(value)}
  oninput={(event) => type(event.currentTarget.value)}
/>
