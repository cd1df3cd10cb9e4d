<template>
  <!-- Rows to read. Its head stays in sight where the table scrolls; what is sorted, searched or long is a DataTable. -->
  <table class="plain">
    <slot />
  </table>
</template>
