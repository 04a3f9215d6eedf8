<script lang="ts">
  import Class from '$lib/practice/Class.svelte';
</script>

<Class />
