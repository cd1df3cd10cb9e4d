<template>
  <!-- A place to press that looks like what it stands in: a row, a mark, a figure. -->
  <button type="button"><slot /></button>
</template>
