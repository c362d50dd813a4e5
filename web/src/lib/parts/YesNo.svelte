<script lang="ts">
  interface Props {
    /** Unique on the page. */
    name: string;
    /** The id of the question. */
    labelledby: string;
    value: boolean | undefined;
    onchange: (yes: boolean) => void;
  }

  let { name, labelledby, value, onchange }: Props = $props();
</script>

<div class="join" role="radiogroup" aria-labelledby={labelledby}>
  {#each [{ yes: true, text: 'Yes' }, { yes: false, text: 'No' }] as option (option.text)}
    <label class="join-item btn btn-sm btn-outline has-checked:bg-base-content has-checked:text-base-100">
      <input
        type="radio"
        class="sr-only"
        {name}
        checked={value === option.yes}
        onchange={() => onchange(option.yes)}
      />
      {option.text}
    </label>
  {/each}
</div>
