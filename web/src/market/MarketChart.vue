<script setup lang="ts">
import { periodMark, periodWords } from '@/shared/format'
import { BarChart, LineChart } from 'echarts/charts'
import { AxisPointerComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { computed, ref, watch } from 'vue'
import VChart from 'vue-echarts'
import type { Docs } from '@/shared/api/client'
import { useLight } from '@/shared/style/useTheme'
import { shownAs } from './useView'
import { localHead, measured, reckoned } from '@/shared/localForm'

use([
  BarChart,
  LineChart,
  GridComponent,
  TooltipComponent,
  LegendComponent,
  AxisPointerComponent,
  SVGRenderer,
])

const LEGEND_WIDTH = 600 // of the names over the chart, in pixels, at 1280
const props = defineProps<{ told: Docs['ViewAnswerDoc']; at: number | null }>()
const emit = defineEmits<{ at: [index: number | null]; open: [period: number, line: number] }>()
const { tokens } = useLight()
const chart = ref<InstanceType<typeof VChart>>()

const lines = computed(() => props.told.lines)
const COUNTS = ['closings', 'new_listings', 'contracts', 'failed', 'for_sale', 'under_contract', 'volume']
const isBar = (line: Docs['ViewLineDoc']) =>
  COUNTS.includes(line.measure) && lines.value.filter((l) => l.measure === line.measure).length === 1
/** A second axis where the second kind of line has a unit, or a size, of its own. */
const right = computed(() => lines.value.some((l) => l.axis === 1))
/** An outside series beside two measures has a scale of its own, which is not drawn. */
const own = computed(() => lines.value.some((l) => l.axis === 2))
const shownName = (l: Docs['ViewLineDoc']) => localHead(l.axis === 2 ? `${l.name}, own scale` : l.name)
const DASHES: (string | number[])[] = ['solid', [7, 4], [2, 3], [10, 3, 2, 3], [1, 5], [14, 4]]

const option = computed(() => {
  const t = tokens.value
  const colours = [t.rain, t.slate, t.cedar, t.moss, t.clay, t.quiet]
  const text = { color: t.slate, fontFamily: 'Figtree', fontSize: 12 }
  const names = props.told.periods.map((p) => p.period)
  /** How many rows the names over the chart take, so that the plot begins below them. */
  const legendRows = () => {
    const wide = lines.value.map((l) => 48 + 6.6 * shownName(l).length)
    return Math.max(1, Math.ceil(wide.reduce((a, b) => a + b, 0) / LEGEND_WIDTH))
  }
  const unit = (axis: number) => lines.value.find((l) => l.axis === axis)?.unit ?? ''
  const axis = (i: number) => ({
    type: 'value',
    position: i ? 'right' : 'left',
    name: localHead(lines.value.find((l) => l.axis === i)?.label ?? ''),
    nameTextStyle: { ...text, align: i ? 'right' : 'left', fontWeight: 600 },
    scale: !lines.value.some((l) => l.axis === i && isBar(l)),
    axisLabel: { ...text, color: t.quiet, formatter: (v: number) => shownAs(reckoned(v, unit(i)), unit(i)) },
    splitLine: { show: i === 0, lineStyle: { color: t.line } },
  })
  return {
    animation: !window.matchMedia('(prefers-reduced-motion: reduce)').matches,
    animationDuration: 250,
    grid: { left: 78, right: right.value ? 64 : 20, top: 58 + 20 * (legendRows() - 1), bottom: 30 },
    legend:
      lines.value.length > 1
        ? { top: 2, right: 8, textStyle: text, itemWidth: 28, data: lines.value.map(shownName) }
        : undefined,
    xAxis: {
      type: 'category',
      data: names,
      axisLine: { lineStyle: { color: t.quiet } },
      axisTick: { show: false },
      axisLabel: {
        ...text,
        color: t.quiet,
        interval: (k: number) => names.length <= 14 || /-(01|Q1)$/.test(names[k]!),
        formatter: periodMark,
      },
    },
    yAxis: [axis(0), ...(right.value ? [axis(1)] : []), ...(own.value ? [{ ...axis(2), show: false }] : [])],
    tooltip: {
      trigger: 'axis',
      backgroundColor: t.paper,
      borderColor: t.line,
      textStyle: text,
      formatter: (items: { dataIndex: number }[]) => {
        const i = items[0]!.dataIndex
        const p = props.told.periods[i]!
        const rows = lines.value.map((l) => {
          const v = l.points[i]
          const few = v && v.n < 5 && l.measure !== 'series' && !isBar(l) ? ` (from ${v.n})` : ''
          return `${localHead(l.name || l.label)}: <b>${shownAs(v?.value, l.unit)}</b>${few}`
        })
        return `<b>${periodWords(p.period)}</b>${p.finished ? '' : ', so far'}<br>${rows.join('<br>')}`
      },
    },
    series: lines.value.map((l, k) => {
      const colour = colours[k % colours.length]!
      const bar = isBar(l)
      return {
        name: shownName(l),
        type: bar ? 'bar' : 'line',
        yAxisIndex: right.value ? l.axis : 0,
        z: bar ? 1 : 3,
        symbol: l.measure === 'series' ? 'none' : 'circle',
        showAllSymbol: true, // a hollow one says that few homes stand behind it: none is left out
        symbolSize: names.length > 40 && lines.value.length > 2 ? 4 : 6,
        connectNulls: false,
        barCategoryGap: '30%',
        lineStyle: { color: colour, width: 2, type: DASHES[k % DASHES.length] },
        itemStyle: { color: bar ? `${colour}55` : colour },
        data: l.points.map((v, i) => {
          const hollow =
            v && (!props.told.periods[i]!.finished || (v.n < 5 && l.measure !== 'series' && !bar))
          return {
            value: v?.value == null ? null : measured(v.value, l.unit),
            itemStyle: hollow
              ? { color: bar ? 'transparent' : t.paper, borderColor: colour, borderWidth: 1.5 }
              : undefined,
          }
        }),
      }
    }),
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
function opened(given: unknown) {
  const event = given as { dataIndex?: number; seriesIndex?: number }
  if (event.dataIndex !== undefined && event.seriesIndex !== undefined)
    emit('open', event.dataIndex, event.seriesIndex)
}
/** The chart as it stands, for saving: SVG text. */
defineExpose({
  svg: () => (chart.value?.$el as HTMLElement | undefined)?.querySelector('svg')?.outerHTML ?? '',
})
</script>

<template>
  <VChart
    ref="chart"
    :option="option"
    :update-options="{ notMerge: true }"
    autoresize
    role="img"
    aria-label="Chart of the view; the table beside it holds the figures"
    @updateaxispointer="pointed"
    @globalout="emit('at', null)"
    @click="opened"
  />
</template>
