<script lang="ts">
  // One tip for the page: what a control's `data-tip` says, when the pointer rests on it and when the keyboard comes to it.
  const RESTS_MS = 500;
  const ID = 'tip';
  let shown: { readonly of: HTMLElement; readonly text: string } | null = $state.raw(null);
  let timer: ReturnType<typeof setTimeout> | undefined;

  const tipped = (target: EventTarget | null): HTMLElement | null =>
    target instanceof Element ? target.closest<HTMLElement>('[data-tip]') : null;
  function hide(): void {
    clearTimeout(timer);
    if (shown?.of.getAttribute('aria-describedby') === ID) shown.of.removeAttribute('aria-describedby');
    shown = null;
  }
  function show(of: HTMLElement): void {
    hide();
    const text = of.dataset.tip;
    if (!text || !of.isConnected) return;
    shown = { of, text };
    // What it is called is not said twice.
    const called = of.getAttribute('aria-label') ?? of.textContent?.trim();
    if (called !== text && !of.hasAttribute('aria-describedby')) of.setAttribute('aria-describedby', ID);
  }
  function over(e: PointerEvent): void {
    if (e.pointerType === 'touch') return;
    const of = tipped(e.target);
    if (of && of === shown?.of) return;
    hide();
    if (of) timer = setTimeout(() => show(of), RESTS_MS);
  }
  function focused(e: FocusEvent): void {
    const of = tipped(e.target);
    if (of?.matches(':focus-visible')) show(of);
    else hide();
  }
</script>

<svelte:document
  onpointerover={over}
  onpointerdown={hide}
  onfocusin={focused}
  onfocusout={hide}
  onkeydown={(e) => e.key === 'Escape' && hide()}
  onscrollcapture={hide}
/>
{#if shown}
  {#key shown}
    {@const { of, text } = shown}
    {#await import('./Tip.svelte') then { default: Tip }}<Tip {of} {text} id={ID} />{/await}
  {/key}
{/if}
