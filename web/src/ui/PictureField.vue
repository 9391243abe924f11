<script setup lang="ts">
import { ref } from 'vue'
import { inWords, unreachable, type Problem } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'

/** A picture from the camera or from a file. It is sent at once; what it goes with names it by its id. */
const picture = defineModel<string | undefined>()
const kitchen = useKitchen()
const sending = ref(false)
const wrong = ref('')
const at = (of: string) => `/api/v1/kitchens/${kitchen.kitchen?.id}/pictures/${of}`

async function chosen(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = '' // the same file may be chosen again
  if (!file || !kitchen.kitchen) return
  sending.value = true
  wrong.value = ''
  const fresh = crypto.randomUUID()
  try {
    const r = await fetch(at(fresh), {
      method: 'POST',
      headers: { 'Content-Type': file.type.startsWith('image/') ? file.type : 'image/*' },
      body: file,
    })
    if (r.ok) picture.value = fresh
    else wrong.value = `The picture: ${inWords((await r.json().catch(() => unreachable)) as Problem)}.`
  } catch {
    wrong.value = `${unreachable.title}. The picture was not saved; you can save the rest without it.`
  }
  sending.value = false
}
</script>

<template>
  <div class="field">
    <span class="label">Picture</span>
    <div class="row">
      <img v-if="picture" :src="`${at(picture)}?small=true`" alt="The saved picture" />
      <label v-for="from in ['camera', 'file'] as const" :key="from" class="push">
        {{ from === 'camera' ? 'Take picture' : 'Choose file' }}
        <input
          class="visually-hidden"
          type="file"
          accept="image/jpeg,image/png"
          :capture="from === 'camera' ? 'environment' : undefined"
          :data-testid="`picture-${from}`"
          @change="chosen"
        />
      </label>
      <button
        v-if="picture"
        type="button"
        class="plain"
        data-testid="picture-away"
        @click="picture = undefined"
      >
        Remove picture
      </button>
      <span v-if="sending" role="status">Reading the picture…</span>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <p class="small quiet">JPEG or PNG, up to 12 MB. Place, time and camera data are removed.</p>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
img {
  height: 72px;
  max-width: 128px;
  border: 1.5px solid var(--rim);
  border-radius: 4px;
  object-fit: cover;
}
label.push {
  position: relative;
}
label:focus-within {
  outline: 3px solid var(--heat);
  outline-offset: 2px;
}
</style>
