<script setup lang="ts">
import { periodWords, number, fact } from '@/shared/format'
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { computed } from 'vue'
import VChart from 'vue-echarts'
import type { Docs } from '@/shared/api/client'
import { useLight } from '@/shared/style/useTheme'
import { shownAs } from '../useView'
import { measured } from '@/shared/localForm'

use([LineChart, ScatterChart, GridComponent, TooltipComponent, SVGRenderer])

/** One measure by month: a dot a month, hollow where few homes stand behind it, under the mean of the half year to each. */
const props = defineProps<{
  months: Docs['MonthDoc'][]
  measure: string
  label: string
  unit: string
  group: string
}>()
const emit = defineEmits<{ open: [month: number] }>()
const { tokens } = useLight()
const BEHIND = 6
const FEW = 5
const COUNTED = ['', 'months']
const points = computed(() => props.months.map((m) => m.values[props.measure]!))
const hollow = (i: number) => !props.months[i]!.finished || (props.unit !== '' && points.value[i]!.n < FEW)
/** The mean of the known months of each half year, by their homes where the measure is a mean or median. */
const line = computed(() =>
  points.value.map((_, i) => {
    if (!props.months[i]!.finished) return null
    const part = points.value.slice(Math.max(0, i - BEHIND + 1), i + 1).filter((p) => p.value !== null)
    if (part.length < 3) return null
    const weight = (p: { n: number }) => (COUNTED.includes(props.unit) ? 1 : p.n)
    const sum = part.reduce((a, p) => a + weight(p), 0)
    return sum ? part.reduce((a, p) => a + (p.value as number) * weight(p), 0) / sum : null
  }),
)
const option = computed(() => {
  const t = tokens.value
  const text = { color: t.quiet, fontFamily: 'Figtree', fontSize: 11 }
  return {
    animation: false,
    grid: { left: 52, right: 8, top: 8, bottom: 20 },
    xAxis: {
      type: 'category',
      data: props.months.map((m) => m.period),
      axisTick: { show: false },
      axisLine: { lineStyle: { color: t.line } },
      axisLabel: {
        ...text,
        interval: (k: number) => props.months[k]!.period.endsWith('-01'),
        formatter: (v: string) => v.slice(0, 4),
      },
    },
    yAxis: {
      type: 'value',
      scale: props.unit !== '' && props.unit !== 'months',
      splitNumber: 3,
      axisLabel: { ...text, formatter: (v: number) => short(v) },
      splitLine: { lineStyle: { color: t.line } },
    },
    tooltip: {
      trigger: 'axis',
      confine: true,
      backgroundColor: t.paper,
      borderColor: t.line,
      textStyle: { ...text, color: t.slate, fontSize: 12 },
      formatter: (items: { dataIndex: number }[]) => {
        const i = items[0]!.dataIndex
        const p = points.value[i]!
        const mean = line.value[i]
        const few = hollow(i) && props.unit !== '' ? ` (from ${p.n})` : ''
        return `<b>${periodWords(props.months[i]!.period)}</b>${props.months[i]!.finished ? '' : ', so far'}<br>${props.label}: <b>${shownAs(p.value, props.unit)}</b>${few}${
          mean === null || mean === undefined ? '' : `<br>mean of the half year: ${shownAs(mean, props.unit)}`
        }`
      },
    },
    series: [
      {
        type: 'line',
        symbol: 'none',
        data: line.value.map((v) => (v == null ? v : measured(v, props.unit))),
        lineStyle: { color: t.rain, width: 2 },
        silent: true,
      },
      {
        type: 'scatter',
        symbolSize: 5,
        cursor: 'pointer',
        data: points.value.map((p, i) => ({
          value: p.value === null ? null : measured(p.value, props.unit),
          itemStyle: { color: hollow(i) ? t.paper : t.quiet, borderColor: t.quiet, borderWidth: 1 },
        })),
      },
    ],
  }
})
function short(v: number): string {
  if (props.unit === '$')
    return Math.abs(v) >= 1e6 ? `${fact(v / 1e6, 'number')}m` : `${Math.round(v / 1000)}k`
  if (props.unit === '$/sq ft') return number(v)
  if (props.unit === 'share') return `${fact(Math.round(1000 * v) / 10, 'number')}%`
  return shownAs(v, props.unit)
}
function opened(given: unknown) {
  const event = given as { dataIndex?: number; seriesType?: string }
  if (event.dataIndex !== undefined && event.seriesType === 'scatter') emit('open', event.dataIndex)
}
</script>

<template>
  <VChart
    class="small-chart"
    :option="option"
    :group="group"
    autoresize
    role="img"
    :aria-label="`${label} by month`"
    @click="opened"
  />
</template>

<style scoped>
.small-chart {
  height: 128px;
}
</style>
