<template>
  <!-- Something to do, said within a line of text. -->
  <button type="button" class="link"><slot /></button>
</template>
