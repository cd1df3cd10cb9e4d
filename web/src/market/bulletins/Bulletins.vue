<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import DateField from '@/shared/ui/fields/DateField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { day } from '@/shared/format'
import type { View } from '../useView'
import BulletinParts from './BulletinParts.vue'
import BulletinReaders from './BulletinReaders.vue'
import { READY } from './parts'
import { useBulletins, type Bulletin } from './useBulletins'

/** Bulletins of several parts in an order: written once, made anew with the newest figures. */
defineProps<{ view: View }>()
const { through, saving, all, at, bulletin, fault, version, sheets, open, begin, save, drop } = useBulletins()
const health = useQuery({ queryKey: ['records'], queryFn: () => got(api.GET('/api/records')) })
const put = (to: Partial<Bulletin>) => bulletin.value && void save({ ...bulletin.value, ...to })
const past = computed(() => (through.value ? `&through=${through.value}` : ''))
const sheetAt = (n: number) =>
  served(`/api/bulletins/${at.value}/sheets/${n}.svg?v=${version.value}${past.value}`)
const FILES = {
  pdf: 'PDF',
  html: 'Web page',
  xlsx: 'Workbook',
  csv: 'CSV',
  'square.png': 'Square picture',
  'wide.png': 'Wide picture',
}
const fileAt = (form: string) =>
  served(`/api/bulletins/${at.value}/bulletin.${form}?v=${version.value}${past.value}`)
</script>

<template>
  <div class="bulletins">
    <div class="sheet left">
      <p class="names">
        <LinkButton
          v-for="b in all.data.value ?? []"
          :key="b.bulletin_id"
          :aria-current="at === b.bulletin_id"
          @click="open(b.bulletin_id)"
        >
          {{ b.bulletin.title }}
        </LinkButton>
        <ActButton @click="begin()">New bulletin</ActButton>
      </p>
      <p class="names small">
        Ready for this view:
        <LinkButton v-for="(words, layout) in READY" :key="layout" @click="begin(layout, view)">
          {{ words }}
        </LinkButton>
      </p>
      <p v-if="!bulletin" class="quiet">
        A bulletin tells of a market on paper: begin with a ready one for the view above, or with an empty
        one. Its figures are always the newest.
      </p>
      <template v-else>
        <p class="give">
          <template v-if="!saving">
            <ActButton
              v-for="(words, form) in FILES"
              :key="form"
              :href="fileAt(form)"
              :plain="form !== 'pdf'"
              download
            >
              {{ words }}
            </ActButton>
          </template>
          <span v-else class="quiet">Saving …</span>
        </p>
        <label class="past framed small">
          As it stood on
          <DateField
            :value="through"
            aria-label="As it stood on"
            :placeholder="day(health.data.value?.through)"
            @date="through = $event"
          />
          <LinkButton v-if="through" @click="through = null">back to the newest</LinkButton>
        </label>
        <label class="field framed">
          <span class="quiet small">Title</span>
          <TypedInput :value="bulletin.title" maxlength="120" @typed="put({ title: $event })" />
        </label>
        <label class="field framed">
          <span class="quiet small">Your words at the start</span>
          <TypedInput
            :value="bulletin.comment"
            :rows="2"
            maxlength="8000"
            @typed="put({ comment: $event })"
          />
        </label>
        <BulletinParts :parts="bulletin.parts ?? []" :view="view" @put="put({ parts: $event })" />
        <BulletinReaders v-if="at !== null" :id="at" :bulletin="bulletin" :version="version" @change="put" />
        <p class="drop"><LinkButton class="small" @click="drop">delete this bulletin</LinkButton></p>
      </template>
      <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    </div>
    <div v-if="bulletin" class="right" aria-label="The bulletin as it will print" role="region" tabindex="0">
      <p v-if="sheets.isError.value" class="lamp" role="alert">{{ sheets.error.value?.message }}</p>
      <figure v-for="n in sheets.data.value ?? 0" :key="n">
        <img :src="sheetAt(n)" :alt="`Sheet ${n} of the bulletin`" />
        <figcaption>
          <a class="link small" :href="sheetAt(n)" :download="`bulletin-${n}.svg`"
            >sheet {{ n }} as a picture</a
          >
        </figcaption>
      </figure>
    </div>
  </div>
</template>

<style scoped>
.bulletins {
  min-height: 0;
  display: grid;
  grid-template-columns: 430px minmax(0, 1fr);
  gap: 18px;
}
.left {
  overflow: auto;
  padding: 14px 16px;
}
.names,
.give,
.past {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}
.names,
.give,
.past {
  margin-bottom: 10px;
}
.give {
  gap: 6px 8px;
}
.give a {
  text-decoration: none;
}
.names [aria-current='true'] {
  font-weight: 600;
  text-decoration: none;
}
.names .do {
  margin-left: auto;
}
.field {
  display: grid;
  margin-bottom: 8px;
}
.past :deep(input) {
  width: 8em;
}
.field :deep(input),
.field :deep(textarea) {
  width: 100%;
}
.drop {
  margin-top: 12px;
}
.right {
  overflow: auto;
  display: grid;
  gap: 14px;
  justify-items: center;
  align-content: start;
}
figure {
  width: min(100%, 640px);
}
img {
  width: 100%;
  display: block;
  border: var(--line);
}
@media (max-width: 900px) {
  .bulletins {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
