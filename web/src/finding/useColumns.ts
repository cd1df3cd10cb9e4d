import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import type { TableColumn } from '@/shared/ui/table'
import { inTurn } from '@/shared/useDraft'
import { localHead } from '@/shared/localForm'
import { useFields } from '@/shared/useFields'
import { useFinding } from './useFinding'

const OF_THE_SALE: TableColumn[] = [
  { key: 'kind', word: 'kind', label: 'Kind', kind: 'word' },
  { key: 'status', label: 'Status', kind: 'word' },
  { key: 'listing_id', label: 'Number', kind: 'word', long: 'Listing number' },
  { key: 'price', label: 'Price', kind: 'money', long: 'Price: what was paid, else what is asked' },
  { key: 'list_price', label: 'List', kind: 'money', long: 'List price, the last one' },
  { key: 'fact:original_list_price', label: 'First list', kind: 'money', long: 'First list price' },
  {
    key: 'prices:share_of_list',
    word: 'share_of_list',
    label: '% of list',
    kind: 'share',
    long: 'Paid, of the last list price',
  },
  {
    key: 'prices:share_of_original',
    word: 'share_of_original',
    label: '% of first',
    kind: 'share',
    long: 'Paid, of the first list price',
  },
  {
    key: 'price_per_sqft',
    word: 'price_per_sqft',
    label: '$/sq ft',
    kind: 'per',
    long: 'Price per square foot',
  },
  {
    key: 'prices:list_price_per_sqft',
    label: 'List $/sq ft',
    kind: 'per',
    long: 'List price per square foot',
  },
  {
    key: 'prices:price_per_lot_sqft',
    label: '$/sq ft of lot',
    kind: 'per',
    long: 'Price per square foot of lot',
  },
  { key: 'prices:price_per_acre', label: '$/acre', kind: 'money', long: 'Price per acre' },
  { key: 'distance_miles', word: 'distance_miles', label: 'Miles', kind: 'miles', rising: true },
  {
    key: 'date',
    word: 'date',
    label: 'Date',
    kind: 'date',
    long: 'Day sold, contracted, listed or off the market',
  },
  { key: 'days_on_market', word: 'days_on_market', label: 'Days', kind: 'number', long: 'Days on market' },
  {
    key: 'prices:cumulative_days_on_market',
    word: 'cumulative_days',
    label: 'All days',
    kind: 'number',
    long: 'Cumulative days: with the listings that this one follows',
  },
  {
    key: 'prices:paid_before',
    word: 'paid_before',
    label: 'Paid before',
    kind: 'money',
    long: 'What was paid for it the time before',
  },
  { key: 'likeness', word: 'likeness', label: 'Alike', kind: 'number', long: 'How alike, of 100' },
]
const USUAL = [
  'price',
  'price_per_sqft',
  'fact:living_area',
  'fact:bedrooms_total',
  'fact:bathrooms_full',
  'fact:garage_spaces',
  'fact:year_built',
  'distance_miles',
  'date',
  'likeness',
]
const USUAL_LAND = [
  'price',
  'fact:lot_size_square_feet',
  'prices:price_per_lot_sqft',
  'prices:price_per_acre',
  'fact:frontage_length',
  'fact:zoning',
  'fact:utilities',
  'distance_miles',
  'date',
  'likeness',
]
/** Half baths stand within the column of the full ones. */
const BATHS = 'bathrooms_full'
const FURTHER = new Set([
  'subdivision_name',
  'building_name',
  'city',
  'postal_code',
  'local_status',
  'bathrooms_total',
])
const held = new Set(OF_THE_SALE.map((c) => c.key))

const chosen = ref<{ columns: string[]; land: string[] }>({ columns: [], land: [] })
const next = inTurn()
let read: Promise<void> | null = null
async function readKept() {
  const { columns, land } = await got(api.GET('/api/columns'))
  chosen.value = { columns, land: land ?? [] }
}

/** The columns of the table of homes: which there are, which are shown, in what order. Kept with the agent, land apart. */
export function useColumns() {
  read ??= readKept()
  const fields = useFields()
  const { home } = useFinding()
  const land = computed(() => ['land', 'acreage'].includes(home.value?.subject.home_kind ?? ''))
  const which = computed(() => (land.value ? 'land' : 'columns'))
  const usually = computed(() => (land.value ? USUAL_LAND : USUAL))
  const all = computed<TableColumn[]>(() => [
    ...OF_THE_SALE.map((c) => ({ ...c, label: localHead(c.label), long: c.long && localHead(c.long) })),
    ...(fields.data.value ?? [])
      .filter(
        (f) =>
          (['home', 'costs', 'price', 'own'].includes(f.group) && f.kind !== 'text') || FURTHER.has(f.name),
      )
      .map((f) => ({
        key: `fact:${f.name}`,
        label: f.name === BATHS ? 'Baths' : f.short || f.label,
        kind: f.kind,
        unit: f.unit,
        long: f.label,
      }))
      .filter((c) => !held.has(c.key) && !['fact:list_price', 'fact:close_price'].includes(c.key)),
  ])
  const keys = computed(() => {
    const own = chosen.value[which.value]
    return own.length ? own : usually.value
  })
  function choose(columns: string[]) {
    chosen.value = { ...chosen.value, [which.value]: columns }
    const body = chosen.value
    void next(() => api.PUT('/api/columns', { body }))
  }
  /** What tells nothing where there is no home to be like, or no place to be far from. */
  const idle = computed(() => [
    ...(home.value?.named === false ? ['likeness'] : []),
    ...(home.value?.here === false ? ['distance_miles'] : []),
  ])
  const shown = computed(() =>
    keys.value
      .filter((key) => !idle.value.includes(key))
      .flatMap((key) => all.value.find((c) => c.key === key) ?? []),
  )
  const others = computed(() => all.value.filter((c) => !keys.value.includes(c.key)))
  const add = (key: string) => choose([...keys.value, key])
  const drop = (key: string) => {
    if (keys.value.length > 1) choose(keys.value.filter((k) => k !== key))
  }
  function move(key: string, by: number) {
    const rest = keys.value.filter((k) => k !== key)
    rest.splice(Math.max(0, Math.min(rest.length, keys.value.indexOf(key) + by)), 0, key)
    choose(rest)
  }
  const usual = () => choose([])
  return { shown, others, add, drop, move, usual }
}
