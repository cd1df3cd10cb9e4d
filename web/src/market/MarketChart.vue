<script setup lang="ts">
import { BarChart, LineChart } from 'echarts/charts'
import {
  AxisPointerComponent,
  GridComponent,
  LegendComponent,
  TitleComponent,
  TooltipComponent,
} from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { computed, ref, watch } from 'vue'
import VChart from 'vue-echarts'
import type { Docs } from '@/shared/api/client'
import { number } from '@/shared/format'
import { useLight } from '@/shared/useTheme'

use([
  BarChart,
  LineChart,
  GridComponent,
  TooltipComponent,
  LegendComponent,
  TitleComponent,
  AxisPointerComponent,
  SVGRenderer,
])

const props = defineProps<{ periods: Docs['PeriodDoc'][]; at: number | null }>()
const emit = defineEmits<{ at: [index: number | null] }>()
const { tokens } = useLight()
const chart = ref<InstanceType<typeof VChart>>()

const option = computed(() => {
  const t = tokens.value
  const names = props.periods.map((p) => p.period)
  const text = { color: t.slate, fontFamily: 'Figtree', fontSize: 12 }
  const panel = (top: string, height: string, i: number) => ({
    left: 70,
    right: 20,
    top,
    height,
    gridIndex: i,
  })
  const xAxis = (i: number) => ({
    type: 'category',
    gridIndex: i,
    data: names,
    axisLine: { lineStyle: { color: t.quiet } },
    axisTick: { show: false },
    axisLabel: {
      show: i === 2,
      ...text,
      color: t.quiet,
      interval: (k: number) => names[k].endsWith('-01') || names.length <= 14,
      formatter: (value: string) => (names.length <= 14 ? value : value.slice(0, 4)),
    },
  })
  const yAxis = (i: number, money: boolean) => ({
    type: 'value',
    gridIndex: i,
    scale: money,
    splitNumber: 3,
    axisLabel: {
      ...text,
      color: t.quiet,
      formatter: (v: number) => (money ? `${number(v / 1000)}k` : number(v)),
    },
    splitLine: { lineStyle: { color: t.line } },
  })
  const title = (words: string, top: string) => ({
    text: words,
    left: 6,
    top,
    textStyle: { ...text, fontWeight: 600 },
  })
  const hollow = (p: Docs['PeriodDoc'], n: number) => !p.finished || n < 5
  return {
    animation: !window.matchMedia('(prefers-reduced-motion: reduce)').matches,
    animationDuration: 250,
    title: [
      title('Median price, $', '0%'),
      title('Closings', '46%'),
      title('For sale at the end of the month', '73%'),
    ],
    grid: [panel('6%', '36%', 0), panel('51%', '18%', 1), panel('78%', '15%', 2)],
    xAxis: [0, 1, 2].map(xAxis),
    yAxis: [yAxis(0, true), yAxis(1, false), yAxis(2, false)],
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    tooltip: {
      trigger: 'axis',
      backgroundColor: t.paper,
      borderColor: t.line,
      textStyle: text,
      formatter: (items: { dataIndex: number }[]) => {
        const p = props.periods[items[0].dataIndex]
        const v = p.values
        return (
          `<b>${p.period}</b>${p.finished ? '' : ', so far'}<br>` +
          `median price ${v.median_price.value === null ? 'unknown' : number(v.median_price.value)}<br>` +
          `${v.closings.n} closings<br>${number(v.for_sale.value)} for sale at the end`
        )
      },
    },
    series: [
      {
        name: 'Median price',
        type: 'line',
        xAxisIndex: 0,
        yAxisIndex: 0,
        symbol: 'circle',
        symbolSize: 6,
        lineStyle: { color: t.rain, width: 2 },
        data: props.periods.map((p) => ({
          value: p.values.median_price.value,
          itemStyle: hollow(p, p.values.median_price.n)
            ? { color: t.paper, borderColor: t.rain, borderWidth: 1.5 }
            : { color: t.rain },
        })),
      },
      {
        name: 'Closings',
        type: 'bar',
        xAxisIndex: 1,
        yAxisIndex: 1,
        barCategoryGap: '25%',
        data: props.periods.map((p) => ({
          value: p.values.closings.value,
          itemStyle: p.finished
            ? { color: t.slate }
            : { color: 'transparent', borderColor: t.slate, borderWidth: 1 },
        })),
      },
      {
        name: 'For sale',
        type: 'bar',
        xAxisIndex: 2,
        yAxisIndex: 2,
        barCategoryGap: '25%',
        data: props.periods.map((p) => ({
          value: p.values.for_sale.value,
          itemStyle: p.finished
            ? { color: t.moss }
            : { color: 'transparent', borderColor: t.moss, borderWidth: 1 },
        })),
      },
    ],
  }
})

watch(
  () => props.at,
  (at) => {
    if (at === null) chart.value?.dispatchAction({ type: 'hideTip' })
    else chart.value?.dispatchAction({ type: 'showTip', seriesIndex: 0, dataIndex: at })
  },
)
function pointed(given: unknown) {
  const event = given as { axesInfo?: { value: number }[] }
  const value = event.axesInfo?.[0]?.value
  if (value !== undefined && value !== props.at) emit('at', value)
}
</script>

<template>
  <VChart
    ref="chart"
    :option="option"
    autoresize
    role="img"
    aria-label="Median price, closings and homes for sale by month; the table beside it holds the figures"
    @updateaxispointer="pointed"
    @globalout="emit('at', null)"
  />
</template>
