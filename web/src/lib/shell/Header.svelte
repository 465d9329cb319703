<script lang="ts">
  import { page } from '$app/state';
  import { bench } from '../bench/workbench.svelte';
  import { screen } from './ground.svelte';
  import { shell } from './shell.svelte';
  import { views } from './views';

  function switchUnits() {
    const system = bench.system === 'metric' ? 'us' : 'metric';
    screen.units = system;
    bench.chooseUnits(system);
  }
</script>

<header class="flex flex-wrap items-center gap-x-2 gap-y-0 border-b px-4 py-1">
  <a class="font-display flex items-center gap-2 text-xl font-bold" href="/{page.url.search}">
    <svg width="34" height="20" viewBox="0 0 34 20" aria-hidden="true">
      <path d="M8 14a9 9 0 0 1 18 0z" fill="var(--coral)" />
      <path d="M1 17h32" stroke="var(--ink)" stroke-width="2" stroke-linecap="round" />
    </svg>
    Faint Sunrise
  </a>
  {#if bench.draft}
    <span class="hidden truncate text-soft lg:inline">{bench.draft.name}</span>
  {/if}
  <nav class="ml-2 flex" aria-label="Views">
    {#each views as view (view.href)}
      <a
        class="quiet border-b-3! rounded-b-none! font-semibold"
        class:border-b-coral!={page.url.pathname === view.href}
        href="{view.href}{page.url.search}"
        aria-current={page.url.pathname === view.href ? 'page' : undefined}
        >{view.name}
        {#if view.key}<kbd class="max-sm:hidden">{view.key}</kbd>{/if}</a
      >
    {/each}
  </nav>
  <div class="ml-auto flex flex-wrap items-center">
    <button
      class="quiet"
      disabled={bench.view?.undo == null && !bench.unsaved}
      title={bench.view?.undo ? `Undo: ${bench.view.undo}` : 'Nothing to undo'}
      onclick={() => void bench.undo()}>Undo <kbd class="max-sm:hidden">u</kbd></button
    >
    <button
      class="quiet"
      disabled={bench.view?.redo == null}
      title={bench.view?.redo ? `Redo: ${bench.view.redo}` : 'Nothing to redo'}
      onclick={() => void bench.redo()}>Redo <kbd class="max-sm:hidden">U</kbd></button
    >
    <button class="quiet" onclick={() => (shell.finding = true)}
      >Find <kbd class="max-sm:hidden">/</kbd></button
    >
    <button
      class="quiet"
      aria-label="Units: {bench.system === 'metric'
        ? 'centimetres and Celsius'
        : 'inches and Fahrenheit'}; switch"
      onclick={switchUnits}>{bench.system === 'metric' ? 'cm °C' : 'in °F'}</button
    >
    <button
      class="quiet"
      aria-label="Ground: {screen.ground}; switch"
      onclick={() => screen.toggleGround()}
    >
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <circle cx="9" cy="9" r="7" fill="none" stroke="currentColor" stroke-width="1.6" />
        <path
          d={screen.ground === 'day' ? 'M9 2a7 7 0 0 1 0 14z' : 'M9 2a7 7 0 0 0 0 14z'}
          fill="currentColor"
        />
      </svg>
      <span class="max-sm:hidden">{screen.ground === 'day' ? 'Day' : 'Night'}</span>
    </button>
    <button class="quiet" aria-label="All keys" onclick={() => (shell.help = true)}
      ><kbd class="text-base!">?</kbd></button
    >
  </div>
</header>
