<script lang="ts">
  import { outputBox, paintedPictures, paintList } from '@mirrot/core';
  import { onMount, untrack } from 'svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import { placesToLookAt } from './places';
  import { fileWorker } from '$lib/workers/files';

  // The drawing as small as it may be used, pixel for pixel, on light and dark.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const SIZES = [16, 24, 32, 48, 64, 128] as const;
  const GROUNDS = [
    ['light', '#ffffff'],
    ['dark', '#22252b'],
  ] as const;
  /** Milliseconds without a change after which it is drawn anew. */
  const RESTS_MS = 300;
  let [small, huge] = $state([false, false]);
  const open = $derived(small || huge);
  let address = $state<string | null>(null);
  const box = $derived(outputBox(desk.drawing.kept, { area: 'drawing' }));
  const pictures = $derived(open ? paintedPictures(paintList(desk.drawing.kept)) : []);

  function show(svg: string | null): void {
    if (address) URL.revokeObjectURL(address);
    address = svg && URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  }
  onMount(() => () => show(null));
  $effect(() => {
    const art = desk.drawing.kept;
    if (!open) return;
    // A picture's pixels stand in no image within an image.
    const hrefs = new Map(pictures.map(({ id }) => [id, 'data:,'] as const));
    let wanted = true;
    const draw = async (): Promise<void> => {
      const svg = await fileWorker
        .ask((work) => work.svg(art, { area: 'drawing', ground: null }, hrefs, null))
        .catch(() => null);
      if (wanted && svg) show(svg);
    };
    const resting = setTimeout(() => void draw(), untrack(() => address) === null ? 0 : RESTS_MS);
    return () => {
      wanted = false;
      clearTimeout(resting);
    };
  });
  // Far: as a thumbnail on an empty ground. Huge: one place so many times as large as on the sheet.
  const [FAR_PX, HUGE_PX, TIMES] = [28, 220, 40];
  const SEEN = HUGE_PX / TIMES;
  let at = $state(0);
  const places = $derived(huge ? placesToLookAt(desk.drawing.kept, desk.choice) : []);
  const place = $derived(places[at % Math.max(1, places.length)]);
  function goThere(): void {
    const { looking } = desk;
    const { width, height } = looking.bed;
    looking.jump({ scale: TIMES, tx: width / 2 - place!.x * TIMES, ty: height / 2 - place!.y * TIMES });
  }
  /** The longer side as long as asked for. */
  const sized = (size: number): { width: number; height: number } => {
    const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
    const k = size / Math.max(w, h);
    return { width: Math.max(1, Math.round(w * k)), height: Math.max(1, Math.round(h * k)) };
  };
</script>

<Fold title="Small sizes" turned={(is) => (small = is)}>
  {#if address}
    {#each GROUNDS as [name, ground] (name)}
      <div class="ground" style:background={ground}>
        {#each SIZES as size (size)}
          <img src={address} {...sized(size)} alt="The drawing at {size} pixels on {name}" />
        {/each}
      </div>
    {/each}
    <p class="quiet">16, 24, 32, 48, 64 and 128 px, pixel for pixel.</p>
    {#if pictures.length > 0}<p class="quiet">Pictures in the drawing are left out here.</p>{/if}
  {:else}
    <p class="quiet">Drawing it small.</p>
  {/if}
</Fold>
<Fold title="Far and huge" turned={(is) => (huge = is)}>
  {#if address && place}
    <div class="far"><img src={address} {...sized(FAR_PX)} alt="The drawing from afar" /></div>
    <img
      class="huge"
      src="{address}#svgView(viewBox({place.x - SEEN / 2},{place.y - SEEN / 2},{SEEN},{SEEN}))"
      width={HUGE_PX}
      height={HUGE_PX}
      alt="One place at {TIMES} times its size"
    />
    <div class="ways">
      <button class="plain-button" onclick={() => (at = (at + places.length - 1) % places.length)}
        >Before</button
      >
      <span class="quiet">{(at % places.length) + 1} of {places.length}</span>
      <button class="plain-button" onclick={() => (at = (at + 1) % places.length)}>Next</button>
      <button class="plain-button" onclick={goThere}>Go there</button>
    </div>
    <p class="quiet">One place at {TIMES} times its size: corners first, or the anchors that are chosen.</p>
  {:else}
    <p class="quiet">{places.length === 0 ? 'Nothing is drawn yet.' : 'Drawing it.'}</p>
  {/if}
</Fold>

<style>
  .ground {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 8px;
    padding: 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  .far {
    display: grid;
    place-items: center;
    height: 90px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: #fffdf8;
  }
  .huge {
    height: 220px;
    align-self: center;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: #fffdf8;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
  }
  p {
    margin: 0;
  }
</style>
