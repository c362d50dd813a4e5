<script lang="ts">
  import Exchange from '$lib/exchange/Exchange.svelte';
  import { theStudent } from '$lib/students/student.svelte';

  const student = theStudent();
</script>

<div class="max-w-5xl px-5 py-5 lg:px-7"><Exchange studentId={student.id} /></div>
