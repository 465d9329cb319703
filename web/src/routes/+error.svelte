<script lang="ts">
  import { page } from '$app/state';
</script>

<div class="m-auto max-w-md p-8 text-center">
  <h1 class="text-2xl">
    {page.status === 404 ? 'There is no such page' : 'This page could not be shown'}
  </h1>
  <p class="mt-2 mb-4 text-soft">
    {page.status === 404
      ? `Nothing is found at ${page.url.pathname}.`
      : (page.error?.message ?? '')}
    Your plan is safe.
  </p>
  <a class="quiet border-frame! font-semibold" href="/">Back to the room</a>
</div>
