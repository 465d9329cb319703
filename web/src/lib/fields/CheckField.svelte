<script lang="ts">
  interface Props {
    label: string;
    value: boolean;
    onset: (value: boolean) => void;
  }
  const { label, value, onset }: Props = $props();
</script>

<label class="flex min-h-8 items-center gap-2"
  ><input
    type="checkbox"
    class="h-5 w-5 shrink-0 rounded border-frame bg-raised text-coral focus:ring-coral"
    checked={value}
    onchange={(event) => onset(event.currentTarget.checked)}
  />
  {label}</label
>
