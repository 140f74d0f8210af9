<script lang="ts">
  import { DateTime } from 'luxon';
  import type { Problem } from '$lib/core/model/place.ts';
  import {
    reportHtml,
    reportMarkdown,
    reportSections,
    type MonthReport
  } from '$lib/core/reach/report.ts';
  import { readMailbox } from '$lib/data/mailbox.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { buildReport, monthsWithReach } from '$lib/ui/reach/monthReport.ts';
  import { download } from '$lib/work/download.ts';
  import { readReportSetting, saveReportSetting, sendReport } from '$lib/work/reach/mailReport.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  const months = live(() => monthsWithReach);
  const mailbox = live(() => readMailbox);
  const setting = live(() => readReportSetting);
  let chosen = $state('');
  let report = $state.raw<MonthReport | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let sent = $state('');
  const month = $derived(chosen || (months.value?.[0] ?? ''));
  const nameOf = (one: string) =>
    new Date(`${one}-15T12:00:00Z`).toLocaleDateString('en', { month: 'long', year: 'numeric' });

  $effect(() => {
    const asked = month;
    if (!asked) return;
    report = null;
    sent = '';
    void attempt(() => buildReport(asked)).then((built) => {
      if (asked !== month) return;
      problem = built.problem;
      report = built.value;
    });
  });

  /** The first one comes when this month is over: earlier ones can be sent from here. */
  const setWanted = (isWanted: boolean) =>
    saveReportSetting({ isWanted, last: DateTime.now().minus({ months: 1 }).toFormat('yyyy-MM') });

  async function send() {
    const sending = report;
    if (!sending) return;
    const done = await attempt(() =>
      runTask(`Sending the report of ${sending.month}`, () => sendReport(month, sending))
    );
    problem = done.problem;
    sent = done.value ?? '';
    if (sent) deck.say(`Report sent to ${mailbox.value?.address}.`);
  }
</script>

<svelte:head><title>Monthly report · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-7xl flex-col gap-2 px-3 py-2">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h1 class="text-lg font-semibold">
        <a class="text-quiet underline" href="/reach">Reach</a>
        <span aria-hidden="true" class="text-quiet">/</span> Monthly report
      </h1>
      {#if month}
        <label class="text-sm"
          ><span class="sr-only">Month</span>
          <select
            class="field py-1"
            value={month}
            onchange={(e) => (chosen = e.currentTarget.value)}
          >
            {#each months.value ?? [] as one (one)}<option value={one}>{nameOf(one)}</option>{/each}
          </select></label
        >
        <span class="ml-auto flex flex-wrap gap-1">
          <button
            class="plain btn btn-sm"
            disabled={!report}
            onclick={() =>
              report && download(`reach-${month}.html`, 'text/html', reportHtml(report))}
            >Download HTML</button
          >
          <button
            class="plain btn btn-sm"
            disabled={!report}
            onclick={() =>
              report && download(`reach-${month}.md`, 'text/markdown', reportMarkdown(report))}
            >Download Markdown</button
          >
          {#if mailbox.value}
            <button class="plain btn btn-sm" disabled={!report} onclick={send}>Send by mail</button>
          {/if}
        </span>
      {/if}
    </header>
    {#if mailbox.value && setting.value}
      <p class="flex flex-wrap items-center gap-3 text-sm">
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            checked={setting.value.isWanted}
            onchange={(e) => setWanted(e.currentTarget.checked)}
          />
          Send me the report of each month to {mailbox.value.address}</label
        >
        {#if sent}<a class="underline" href={sent} target="_blank" rel="noreferrer">View message</a
          >{/if}
      </p>
    {:else if month}
      <p class="text-sm text-quiet">
        <a class="underline" href="/places">Connect a mailbox</a> to get it by mail each month.
      </p>
    {/if}
    {#if problem}<ProblemNote {problem} />{/if}
    {#if months.value?.length === 0}
      <EmptyState title="No figures yet">
        <p>A report can be made once there are figures of a month.</p>
        {#snippet actions()}<a class="strong btn btn-sm" href="/reach">Go to Reach</a>{/snippet}
      </EmptyState>
    {:else if report}
      <div class="flex max-w-4xl flex-col gap-4 pb-6">
        {#each report.charts as { title, png } (title)}
          <img src={png} alt={title} class="w-full border border-line" />
        {/each}
        {#each reportSections(report) as { title, none, columns, rows } (title)}
          <section>
            <h2 class="font-semibold">{title}</h2>
            {#if rows.length === 0}
              <p class="text-sm text-quiet">{none}</p>
            {:else}
              <table class="w-full text-sm">
                <thead class="text-left text-quiet">
                  <tr
                    >{#each columns as column (column)}<th scope="col" class="pr-4 font-normal"
                        >{column}</th
                      >{/each}</tr
                  >
                </thead>
                <tbody>
                  {#each rows as row, r (r)}
                    <tr class="border-t border-line align-top">
                      {#each row as cell, i (i)}
                        {#if i === 0}<th
                            scope="row"
                            class="py-0.5 pr-4 text-left font-normal wrap-anywhere">{cell}</th
                          >{:else}<td class="py-0.5 pr-4">{cell}</td>{/if}
                      {/each}
                    </tr>
                  {/each}
                </tbody>
              </table>
            {/if}
          </section>
        {/each}
      </div>
    {:else if month && !problem}
      <p class="text-sm text-quiet" role="status">Making the report…</p>
    {/if}
  </div>
</div>
