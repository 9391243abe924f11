<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, inWords, unanswered, type Kitchen } from '@/api/client'
import WorkProgress from '@/ui/WorkProgress.vue'
import KitchenNameDialog from './KitchenNameDialog.vue'
import DeleteKitchenDialog from './DeleteKitchenDialog.vue'
import { useKitchen } from '@/stores/useKitchen'
import { useWork } from '@/stores/useWork'

/** The kitchens of this house, and a whole kitchen as one file: taken away, and brought in. */
const kitchen = useKitchen()
const naming = ref(false)
const refused = ref('')
const work = useWork()
const restored = ref<Kitchen>()
/** The kitchen that may be taken away. */
const leaving = ref<Kitchen>()
const asking = ref(false)

async function restore(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  refused.value = ''
  restored.value = undefined
  const got = await work.run(async (how) => {
    const sent = await ask(
      api.POST('/api/v1/kitchens/restore', {
        params: { header: { 'X-Work': how.id } },
        headers: { 'Content-Type': 'application/zip' },
        body: file as unknown as string, // the description knows bytes as a string
        bodySerializer: (x) => x,
        signal: how.signal,
      }),
    )
    if (!sent.problem || !unanswered(sent.problem)) return sent
    const came = await work.afterBreak(how)
    if (came?.kitchen) return { data: came.kitchen }
    return { problem: came?.problem ?? sent.problem }
  })
  if (!got) refused.value = 'Stopped. Nothing was imported'
  else if (got.problem) refused.value = `${inWords(got.problem)}. Nothing was imported`
  else {
    restored.value = got.data
    await kitchen.load()
  }
}
</script>

<template>
  <section class="panel kitchens" aria-label="Kitchens and backup">
    <div class="one">
      <h2>Kitchens</h2>
      <ul>
        <li v-for="k in kitchen.all" :key="k.id">
          <strong>{{ k.name }}</strong>
          <span v-if="k.id === kitchen.kitchen?.id" class="quiet">current</span>
          <button v-else class="push" :data-testid="`go-${k.name}`" @click="kitchen.choose(k.id)">
            Switch to it
          </button>
          <button class="plain" :data-testid="`remove-${k.name}`" @click="((leaving = k), (asking = true))">
            Delete…
          </button>
        </li>
      </ul>
      <p><button class="push" data-testid="add-kitchen" @click="naming = true">Add kitchen…</button></p>
      <KitchenNameDialog v-model="naming" fresh />
      <p class="small quiet">Each kitchen has its own cards, dishes, ovens, figures and log.</p>
    </div>
    <div class="one">
      <h2>Backup</h2>
      <p>
        <a
          v-if="kitchen.kitchen"
          class="push"
          :href="`/api/v1/kitchens/${kitchen.kitchen.id}/backup.zip`"
          :download="`${kitchen.kitchen.name}.zip`"
          data-testid="backup"
          >{{ `${kitchen.kitchen.name} as one file` }}</a
        >
      </p>
      <p class="small quiet">
        A zip file of JSON and pictures with everything in this kitchen. Its format is described in
        docs/formats.md.
      </p>
      <h2>Restore</h2>
      <label class="push bring">
        Restore a backup…
        <input
          class="visually-hidden"
          type="file"
          accept=".zip,application/zip"
          data-testid="restore"
          @change="restore"
        />
      </label>
      <WorkProgress v-if="work.on.value" label="Importing" :share="work.share.value" @stop="work.stop" />
      <p v-if="restored" role="status" data-testid="restored">
        {{ `${restored.name} is restored.` }}
        <button class="push" @click="kitchen.choose(restored.id)">Switch to it</button>
      </p>
      <p class="small quiet">
        A backup is restored completely or not at all. It becomes a new kitchen; existing kitchens are not
        changed.
      </p>
      <p v-if="refused" class="wrong" role="alert" data-testid="restore-refused">{{ refused }}.</p>
    </div>
    <DeleteKitchenDialog v-if="leaving" v-model="asking" :kitchen="leaving" />
  </section>
</template>

<style scoped>
.kitchens {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
  gap: 20px 40px;
  padding: 14px 18px 20px;
}
.one {
  display: grid;
  align-content: start;
  gap: 8px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 52px;
  border-bottom: 1px solid var(--line);
}
li strong {
  margin-right: auto;
}
.bring {
  position: relative;
  justify-self: start;
}
.bring:focus-within {
  outline: 3px solid var(--heat);
  outline-offset: 2px;
}
</style>
