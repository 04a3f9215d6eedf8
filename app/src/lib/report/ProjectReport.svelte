<script lang="ts">
  import type { ReportAnswer } from '$lib/wire';

  // One project: drawing and picture, see-through proof, figures, what is left.
  let { report }: { report: ReportAnswer } = $props();
  const api = $derived(`/api/projects/${report.id}`);
  const drawing = $derived(`${api}/export.svg`);
  // Nothing of the drawing, and all of its pictures.
  const picture = $derived(`${api}/export.png?width=900&picture=1&only=none`);
  const GROUNDS = [
    ['on a loud ground', '#ff2ea6'],
    ['on dark', '#1b1d19'],
    ['on light', '#fffdf6'],
  ] as const;
  const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
</script>

<article aria-labelledby="of-{report.id}" style:--ratio={report.ratio}>
  <header>
    <h1 id="of-{report.id}" dir="auto">{report.name}</h1>
    <p class="quiet">{report.sheet}</p>
  </header>
  <div class="pair">
    {#if report.pictured}
      <figure>
        <img src={picture} alt="The picture of {report.name}" />
        <figcaption>the picture</figcaption>
      </figure>
    {/if}
    <figure>
      <img src={drawing} alt="The drawing of {report.name}" />
      <figcaption>the drawing</figcaption>
    </figure>
  </div>
  <div class="grounds">
    {#each GROUNDS as [word, ground] (word)}
      <figure>
        <img src={drawing} style:background={ground} alt="" />
        <figcaption>{word}</figcaption>
      </figure>
    {/each}
  </div>
  <div class="pair">
    <section>
      <h2>Figures</h2>
      <dl>
        {#each report.figures as [what, value] (what)}
          <dt>{what}</dt>
          <dd>{value}</dd>
        {/each}
      </dl>
    </section>
    <section>
      <h2>Area by colour</h2>
      <ul class="areas">
        {#each report.areas as { hex, name, share } (hex)}
          <li>
            <span class="name" dir="auto">{name}</span>
            <span class="bar"><span style:width="{100 * share}%" style:background={hex}></span></span>
            <span>{percent(share)}</span>
          </li>
        {:else}
          <li class="quiet">Nothing is filled.</li>
        {/each}
      </ul>
    </section>
  </div>
  <section>
    <h2>
      {report.left.length === 0
        ? 'Nothing is left that looks like a mistake'
        : `Findings left: ${report.left.length}`}
    </h2>
    {#if report.left.length + report.aside.length > 0}
      <table>
        <thead
          ><tr><th scope="col">what</th><th scope="col">where</th><th scope="col">how much</th></tr></thead
        >
        <tbody>
          {#each [...report.left, ...report.aside] as finding, i (i)}
            <tr class:quiet={finding.aside !== null}>
              <td>{finding.what}</td>
              <td dir="auto">{finding.where}</td>
              <td dir="auto"
                >{finding.aside === null
                  ? finding.amount
                  : `aside: ${finding.aside || 'no reason given'}`}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </section>
</article>

<style>
  article {
    margin-bottom: 24px;
    padding: 24px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  h1 {
    font-family: 'Bricolage Grotesque Variable', sans-serif;
    font-size: 26px;
    font-weight: 650;
  }
  h2 {
    margin: 0 0 6px;
    font-family: 'Bricolage Grotesque Variable', sans-serif;
    font-size: 16px;
    font-weight: 650;
  }
  header {
    margin-bottom: 14px;
  }
  .pair,
  .grounds {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 16px;
    margin-bottom: 16px;
  }
  .grounds {
    grid-template-columns: repeat(3, 1fr);
  }
  figure {
    margin: 0;
  }
  img {
    display: block;
    width: 100%;
    max-height: 340px;
    aspect-ratio: var(--ratio);
    object-fit: contain;
    border: 1px solid var(--line);
    background: #fff;
    print-color-adjust: exact;
  }
  figcaption {
    margin-top: 3px;
    font-size: 12.5px;
    color: var(--quiet);
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 3px 12px;
    margin: 0;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .areas {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  .areas li {
    display: grid;
    grid-template-columns: 6.5rem 1fr 3.6rem;
    gap: 8px;
    align-items: center;
    font-variant-numeric: tabular-nums;
  }
  .areas li > :last-child {
    text-align: right;
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .bar > span {
    display: block;
    min-width: 2px;
    height: 12px;
    border: 1px solid var(--line);
    border-radius: 2px;
    print-color-adjust: exact;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 3px 8px 3px 0;
    border-bottom: 1px solid var(--line);
    text-align: start;
    font-weight: 400;
  }
  th {
    font-size: 12.5px;
    color: var(--quiet);
  }
  @media print {
    article {
      margin: 0;
      padding: 0;
      border: 0;
      background: none;
      break-after: page;
    }
  }
</style>
