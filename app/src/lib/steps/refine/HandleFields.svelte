<script lang="ts">
  import {
    add,
    moveHandle,
    negate,
    otherSide,
    scale,
    setPath,
    unit as unitOf,
    withAnchor,
    type Point,
    toDegrees,
    toRadians,
  } from '@mirrot/core';
  import { findPath } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';

  // The chosen handle by its length and angle.
  let { desk }: { desk: Desk } = $props();
  const unit = $derived(desk.art.sheet.unit);
  const ref = $derived(desk.choice.handle);
  const path = $derived(ref && findPath(desk.shapeOf(ref.shape), ref.path));
  const anchor = $derived(path && ref ? (path.anchors[ref.index] ?? null) : null);
  const handle = $derived(anchor && ref ? anchor[ref.side] : null);
  const long = $derived(handle ? Math.hypot(handle.x, handle.y) : 0);
  const angle = $derived(handle ? toDegrees(-Math.atan2(handle.y, handle.x)) : 0);

  function set(label: string, to: Point): void {
    if (!ref || !path || !anchor) return;
    desk.change(label, setPath(ref.shape, moveHandle(path, ref.index, ref.side, add(anchor, to))), {
      choice: desk.choice,
    });
  }
  const polar = (length: number, degrees: number): Point => ({
    x: length * Math.cos(toRadians(degrees)),
    y: -length * Math.sin(toRadians(degrees)),
  });
  /** The other handle becomes as long as this one; it keeps its direction, or where it has none gets the opposite one. */
  function sameLength(): void {
    if (!ref || !path || !anchor || !handle) return;
    const side = otherSide(ref.side);
    const along = unitOf(anchor[side] ?? negate(handle));
    if (!along) return;
    const both = { ...anchor, [side]: scale(along, long) };
    desk.change('Same length across', setPath(ref.shape, withAnchor(path, ref.index, both)), {
      choice: desk.choice,
    });
  }
  /** The other handle becomes this one's mirror image, as long and opposite. */
  function mirror(): void {
    if (!ref || !path || !anchor || !handle) return;
    const both = { ...anchor, [otherSide(ref.side)]: negate(handle) };
    desk.change('Mirror the handle', setPath(ref.shape, withAnchor(path, ref.index, both)), {
      choice: desk.choice,
    });
  }
</script>

{#if ref && handle}
  <h3 class="panel-title">{ref.side === 'in' ? 'Arriving' : 'Leaving'} handle</h3>
  <div class="pair">
    <LengthField
      {unit}
      label="l"
      name="Length of the handle"
      value={long}
      least={0.001}
      change={(v) => set('Stretch the handle', polar(v, angle))}
    />
    <NumberField
      label="angle"
      name="Angle of the handle"
      value={angle}
      unit="°"
      digits={2}
      min={-360}
      max={360}
      change={(v) => set('Turn the handle', polar(long, v))}
    />
  </div>
  <div class="button-row">
    <button class="plain-button" onclick={mirror}>Mirror across</button>
    <button class="plain-button" onclick={sameLength}>Same length across</button>
  </div>
{/if}
