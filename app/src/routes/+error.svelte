<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Mirrot</title></svelte:head>
<main class="grid h-full place-items-center">
  <div class="text-center">
    <h1 class="text-2xl">{page.error?.message ?? 'Something went wrong.'}</h1>
    <p class="mt-3"><a href="/" class="plain-button">Back to the shelf</a></p>
  </div>
</main>
