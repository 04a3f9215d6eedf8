<script lang="ts">
  import FileDown from '@lucide/svelte/icons/file-down';
  import House from '@lucide/svelte/icons/house';
  import Printer from '@lucide/svelte/icons/printer';
  import type { ReportAnswer, ReportUse } from '$lib/wire';
  import { reportPdf } from './api';
  import ProjectReport from './ProjectReport.svelte';

  // What is handed to a client or a teacher: a page for each project, to be printed.
  let { reports, use }: { reports: readonly ReportAnswer[]; use: ReportUse } = $props();
  const title = $derived(reports.length === 1 ? reports[0]!.name : `${reports.length} projects`);
  const ids = $derived(reports.map(({ id }) => id));
</script>

<svelte:head><title>Report on {title} · Mirrot</title></svelte:head>

<main>
  <nav aria-label="Report">
    <a class="plain-button" href="/"><House size={16} strokeWidth={1.75} />Shelf</a>
    <button class="plain-button" onclick={() => window.print()}>
      <Printer size={16} strokeWidth={1.75} />Print
    </button>
    <a class="plain-button" href={reportPdf(ids, use)} download="report.pdf">
      <FileDown size={16} strokeWidth={1.75} />PDF
    </a>
  </nav>
  {#each reports as report (report.id)}<ProjectReport {report} />{/each}
</main>

<style>
  main {
    max-width: 860px;
    margin: 0 auto;
    padding: 20px;
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-bottom: 16px;
  }
  @media print {
    nav {
      display: none;
    }
    main {
      max-width: none;
      padding: 0;
    }
  }
</style>
