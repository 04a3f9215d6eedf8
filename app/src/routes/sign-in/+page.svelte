<script lang="ts">
  import { page } from '$app/state';
  import { signIn, ServerError } from '$lib/desk/api';

  let key = $state('');
  let trouble: string | null = $state(null);
  let asking = $state(false);

  /** Where to go on: a page of this server, nothing else. */
  const to = $derived.by(() => {
    const path = page.url.searchParams.get('to') ?? '/';
    return /^\/(?![/\\])/.test(path) ? path : '/';
  });

  async function enter(e: SubmitEvent): Promise<void> {
    e.preventDefault();
    asking = true;
    trouble = null;
    try {
      await signIn(key);
      location.href = to;
    } catch (error) {
      trouble = error instanceof ServerError ? error.message : 'That did not work. Try again.';
    } finally {
      asking = false;
    }
  }
</script>

<svelte:head><title>Sign in · Mirrot</title></svelte:head>
<main class="grid h-full place-items-center">
  <form class="sheet" onsubmit={enter}>
    <header>
      <img src="/mirrot.svg" alt="" width="38" height="38" />
      <h1>Mirrot</h1>
    </header>
    <p>This desk stands on another machine. Its key was printed there when it was started.</p>
    <label for="key">Access key</label>
    <!-- svelte-ignore a11y_autofocus -->
    <input
      id="key"
      type="text"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      autofocus
      required
      bind:value={key}
      aria-describedby="trouble"
      aria-invalid={trouble !== null}
    />
    <p id="trouble" class="trouble" role="alert">{trouble ?? ''}</p>
    <button class="main-button" disabled={asking}>Sign in</button>
  </form>
</main>

<style>
  .sheet {
    display: grid;
    gap: 10px;
    width: min(360px, 92vw);
    padding: 26px 28px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  header {
    display: flex;
    align-items: center;
    gap: 10px;
    margin-bottom: 4px;
  }
  h1 {
    font-size: 22px;
  }
  .main-button {
    justify-content: center;
    text-align: center;
  }
  p {
    color: var(--quiet);
  }
  label {
    margin-top: 6px;
    font-weight: 600;
  }
  input {
    padding: 6px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--desk);
    font-size: 16px;
    letter-spacing: 0.04em;
  }
  .trouble {
    min-height: 1.35em;
    color: var(--brick);
  }
</style>
