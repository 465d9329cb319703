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

<header
  class="flex items-center gap-x-2 border-b px-4 py-1 max-sm:flex-wrap max-sm:gap-x-0 max-sm:px-2 max-sm:py-0"
>
  <a
    class="font-display flex shrink-0 items-center gap-2 text-xl font-bold"
    href="/{page.url.search}"
    aria-label="Faint Sunrise, the room"
  >
    <svg width="34" height="20" viewBox="0 0 34 20" aria-hidden="true">
      <path d="M8 14a9 9 0 0 1 18 0z" fill="var(--coral)" />
      <path d="M1 17h32" stroke="var(--ink)" stroke-width="2" stroke-linecap="round" />
    </svg>
    <span class="max-sm:hidden">Faint Sunrise</span>
  </a>
  {#if bench.draft}
    <a
      class="hidden min-w-0 truncate text-soft hover:underline min-[90rem]:inline"
      href="/setup#plans"
      title="All plans">{bench.draft.name}</a
    >
  {/if}
  <!-- On a phone the views lie where the thumb is. -->
  <nav
    class="ml-2 flex max-sm:fixed max-sm:inset-x-0 max-sm:bottom-0 max-sm:z-40 max-sm:ml-0 max-sm:justify-between max-sm:overflow-x-auto max-sm:border-t max-sm:bg-raised max-sm:px-1 max-sm:pb-[env(safe-area-inset-bottom)]"
    aria-label="Views"
  >
    {#each views as view (view.href)}
      <a
        class="quiet border-b-3! rounded-b-none! font-semibold max-sm:min-h-13! max-sm:rounded-none! max-sm:border-t-3! max-sm:border-b-0! max-sm:px-1.5! max-sm:text-[15px]"
        class:here={page.url.pathname === view.href}
        href="{view.href}{page.url.search}"
        aria-current={page.url.pathname === view.href ? 'page' : undefined}
        >{view.name}
        {#if view.key}<kbd class="max-lg:hidden">{view.key}</kbd>{/if}</a
      >
    {/each}
  </nav>
  <div class="ml-auto flex items-center">
    <button
      class="quiet max-sm:px-2!"
      disabled={bench.view?.undo == null && !bench.unsaved}
      title={bench.view?.undo ? `Undo: ${bench.view.undo}` : 'Nothing to undo'}
      onclick={() => void bench.undo()}
      ><span class="max-sm:sr-only">Undo</span><span class="text-lg sm:hidden" aria-hidden="true"
        >↶</span
      > <kbd class="max-lg:hidden">u</kbd></button
    >
    <button
      class="quiet max-sm:px-2!"
      disabled={bench.view?.redo == null}
      title={bench.view?.redo ? `Redo: ${bench.view.redo}` : 'Nothing to redo'}
      onclick={() => void bench.redo()}
      ><span class="max-sm:sr-only">Redo</span><span class="text-lg sm:hidden" aria-hidden="true"
        >↷</span
      > <kbd class="max-lg:hidden">U</kbd></button
    >
    <button class="quiet max-sm:px-2!" onclick={() => (shell.finding = true)}
      >Find <kbd class="max-lg:hidden">/</kbd></button
    >
    <button
      class="quiet max-sm:px-2!"
      aria-label="Units: {bench.system === 'metric'
        ? 'centimetres and Celsius'
        : 'inches and Fahrenheit'}; switch"
      onclick={switchUnits}
      ><span class="whitespace-nowrap">{bench.system === 'metric' ? 'cm °C' : 'in °F'}</span
      ></button
    >
    <button
      class="quiet max-sm:px-2!"
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
      <span class="max-2xl:hidden">{screen.ground === 'day' ? 'Day' : 'Night'}</span>
    </button>
    <button class="quiet max-sm:hidden" aria-label="All keys" onclick={() => (shell.help = true)}
      ><kbd class="text-base!">?</kbd></button
    >
  </div>
</header>

<style>
  .here {
    border-bottom-color: var(--coral) !important;
    border-top-color: var(--coral) !important;
  }
  @media (min-width: 640px) {
    .here {
      border-top-color: transparent !important;
    }
  }
</style>
