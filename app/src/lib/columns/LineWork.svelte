<script lang="ts">
  import { untrack } from 'svelte';
  import { linesOf, sameShapes, shapesEnclosing } from '$lib/desk/linework.svelte';
  import { withProgress } from '$lib/desk/progress';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { shapesToWeed } from '$lib/edits/weeding';
  import { pathWorker } from '$lib/workers/paths';

  // While areas are poured or lines weeded, what the lines make with each other is known; nothing of it is seen here.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const { linework } = $derived(desk);
  const task = $derived(desk.pointing.task?.kind);
  const gap = $derived(desk.habits.pourGap);

  // What lines make with each other is looked for while it is wanted, and anew when they change.
  $effect(() => {
    if (task !== 'pour') return;
    const shapes = shapesEnclosing(desk.drawing.kept);
    const bridged = gap;
    const { areas } = untrack(() => linework);
    if (areas && areas.gap === bridged && sameShapes(areas.lines.shapes, shapes)) return;
    const lines = linesOf(shapes);
    void untrack(() =>
      withProgress(workplace, 'Looking for enclosed areas', pathWorker.end, () =>
        pathWorker.ask((work) => work.enclosed(lines.paths, bridged)),
      ).then((enclosed) => enclosed && (linework.areas = { lines, gap: bridged, enclosed })),
    );
  });
  $effect(() => {
    if (task !== 'weed') return;
    void desk.drawing.kept;
    const shapes = shapesToWeed(desk);
    const { pieces } = untrack(() => linework);
    if (pieces && sameShapes(pieces.lines.shapes, shapes)) return;
    const lines = linesOf(shapes);
    void untrack(() =>
      withProgress(workplace, 'Looking for crossings', pathWorker.end, () =>
        pathWorker.ask((work) => work.pieces(lines.paths)),
      ).then((found) => found && (linework.pieces = { lines, found })),
    );
  });
</script>
