<script lang="ts">
  import { page } from '$app/state';
  import { account } from '$lib/accounts/account.svelte';
  import { api, ask, newId, Refusal, type Schemas } from '$lib/api/client';
  import { dayAndTime } from '$lib/parts/format';
  import { pageText } from '$lib/parts/problems';

  interface Props {
    /** Whose sessions; none for all students. */
    student: string | null;
  }

  let { student }: Props = $props();
  let feeds = $state.raw<Schemas['FeedView'][]>([]);
  let refusal = $state.raw<Refusal>();
  let said = $state('');
  const mine = $derived(feeds.filter((f) => f.studentId === student));
  const download = $derived(student ? `/api/v1/students/${student}/calendar` : '/api/v1/calendar');
  const link = (feed: Schemas['FeedView']) => `${page.url.origin}${feed.path}`;
  const halves = [
    ['morning', 'Mornings'],
    ['afternoon', 'Afternoons'],
  ] as const;
  const usual = { morning: '09:00:00', afternoon: '17:00:00' };

  async function load() {
    feeds = await ask(api.GET('/api/v1/calendar/feeds'));
  }
  $effect(() => {
    load().catch((error: unknown) => (refusal = error as Refusal));
  });

  async function send(call: () => Promise<unknown>, done: string) {
    refusal = undefined;
    said = '';
    try {
      await call();
      await load();
      said = done;
    } catch (error) {
      refusal = error as Refusal;
    }
  }

  const make = () =>
    send(
      () => ask(api.POST('/api/v1/calendar/feeds', { body: { id: newId(), studentId: student, ...usual } })),
      'The link is made.',
    );

  const revoke = (feed: Schemas['FeedView']) =>
    send(
      () => ask(api.DELETE('/api/v1/calendar/feeds/{feedId}', { params: { path: { feedId: feed.id } } })),
      'The link is revoked: nothing is read under it any more.',
    );

  function times(feed: Schemas['FeedView'], half: 'morning' | 'afternoon', time: string) {
    if (!time) return;
    void send(
      () =>
        ask(
          api.PUT('/api/v1/calendar/feeds/{feedId}', {
            params: { path: { feedId: feed.id } },
            body: { morning: feed.morning, afternoon: feed.afternoon, [half]: `${time}:00` },
          }),
        ),
      'The calendar shows the new time when it is read again.',
    );
  }

  async function copy(feed: Schemas['FeedView']) {
    try {
      await navigator.clipboard.writeText(link(feed));
      said = 'Copied.';
    } catch {
      said = 'It could not be copied: mark it and copy it by hand.';
    }
  }
</script>

<section aria-label="Calendar">
  <h2>Calendar</h2>
  {#each mine as feed (feed.id)}
    <div class="ruled mt-2 grid gap-2 border-t pt-2">
      <label class="grid text-sm">
        <span
          >Link, made {dayAndTime(feed.at)}. Whoever has it can read {student
            ? 'these sessions'
            : 'all sessions'}.</span
        >
        <input
          class="input input-sm w-full"
          readonly
          value={link(feed)}
          onfocus={(event) => event.currentTarget.select()}
        />
      </label>
      <div class="flex flex-wrap items-end gap-2">
        <button type="button" class="btn btn-sm btn-outline" onclick={() => copy(feed)}>Copy</button>
        {#if account.mayWrite}
          {#each halves as [half, name] (half)}
            <label class="grid text-sm">
              <span>{name} at</span>
              <input
                type="time"
                class="input input-sm w-28"
                value={feed[half].slice(0, 5)}
                onchange={(event) => times(feed, half, event.currentTarget.value)}
              />
            </label>
          {/each}
          <button type="button" class="btn btn-sm btn-ghost" onclick={() => revoke(feed)}
            >Revoke the link</button
          >
        {/if}
      </div>
    </div>
  {:else}
    <p class="mt-1 text-sm">
      {student
        ? 'The sessions can be subscribed to in any calendar by a link.'
        : 'The sessions of all students can be subscribed to in any calendar by a link of your own.'}
    </p>
  {/each}
  <div class="mt-2 flex flex-wrap items-center gap-3">
    {#if account.mayWrite && mine.length === 0}
      <button type="button" class="btn btn-sm btn-outline" onclick={make}>Make a link</button>
    {/if}
    <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- a file that the server makes -->
    <a class="link-line text-sm" href={download} download="tensarch.ics">Download it as a file</a>
  </div>
  <p class="text-quiet mt-1 text-sm" role="status">{said}</p>
  {#if refusal}<p class="text-error text-sm font-semibold">{pageText(refusal.code)}</p>{/if}
</section>
