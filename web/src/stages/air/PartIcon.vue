<script setup lang="ts">
/** The sign of a part of an air path, 44 units wide. */
defineProps<{ kind: string; /** Whether return air joins at the mixing. */ joined: boolean }>();
</script>

<template>
  <g>
    <rect v-if="kind === 'recovery'" y="4" width="44" height="88" class="box" />
    <template v-else>
      <path v-if="kind === 'mixing' && joined" d="M22 44V80" class="return" />
      <rect width="44" height="44" class="box" />
    </template>
    <path v-if="kind === 'recovery'" d="M4 22L40 74M4 74L40 22" class="accent" />
    <path v-else-if="kind === 'mixing'" d="M4 22H42M22 40V24" class="accent" />
    <path v-else-if="kind === 'heating coil'" d="M8 22q4-14 8 0t8 0 8 0 5 0" class="warm" />
    <path v-else-if="kind === 'cooling coil'" d="M12 36l5-28 5 28 5-28 5 28" class="cold" />
    <path
      v-else-if="kind === 'steam humidifier'"
      d="M12 36q6-8 0-14t0-14M22 36q6-8 0-14t0-14M32 36q6-8 0-14t0-14"
      class="thin"
    />
    <path
      v-else-if="kind === 'adiabatic humidifier'"
      d="M14 10v4M14 20v4M14 30v4M22 14v4M22 24v4M30 10v4M30 20v4M30 30v4"
      class="cold"
    />
    <g v-else-if="kind === 'fan'">
      <circle cx="22" cy="22" r="15" class="thin" />
      <path d="M22 22V8M22 22l12 7M22 22l-12 7" class="thin" />
    </g>
    <path v-else-if="kind === 'filter'" d="M16 5V39M22 5V39M28 5V39" class="thin" stroke-dasharray="3 3" />
    <path v-else-if="kind === 'attenuator'" d="M4 14H40M4 22H40M4 30H40" class="thin" />
    <path v-else-if="kind === 'rooms'" d="M8 36V18L22 8l14 10v18z" class="thin" />
    <path v-else d="M14 22h.1M22 22h.1M30 22h.1" class="dots" />
  </g>
</template>

<style scoped>
.box {
  fill: var(--field);
  stroke: var(--ink);
}
.thin {
  fill: none;
  stroke: var(--ink);
}
.dots {
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
}
.accent {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.warm {
  fill: none;
  stroke: var(--ember);
  stroke-width: 2.4;
}
.cold {
  fill: none;
  stroke: var(--tide);
  stroke-width: 2.4;
}
.return {
  stroke: var(--storage);
  stroke-width: 8;
  opacity: 0.4;
}
</style>
