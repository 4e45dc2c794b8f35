<script setup lang="ts">
/** What was issued: files to fetch, their hashes, and the way to open one as it was. */
import { client, Refusal, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import { ref } from "vue";
import { useRouter } from "vue-router";
import { FILE_NAMES, type Issued } from "./issues";

defineProps<{ issues: Issued[] }>();
const doc = useDocument();
const router = useRouter();
const fault = ref("");
const href = (issue: Issued, file: string) =>
  `/api/projects/${doc.projectId}/issues/${issue.id}/files/${file}`;
const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

async function open(issue: Issued): Promise<void> {
  try {
    const made = unwrap(
      await client.POST("/api/projects/{project_id}/issues/{issue_id}/open", {
        params: { path: { project_id: doc.projectId, issue_id: issue.id } },
      }),
    );
    await router.push(`/${made.id}/loads`);
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <div class="body">
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <p v-if="!issues.length" class="empty">
      Nothing is issued yet. Choose parts at the left, say what the issue is for, and press “Issue”.
    </p>
    <article v-for="issue in issues" :key="issue.id" class="issue" :aria-label="`Issue ${issue.number}`">
      <h2>
        {{ issue.number }} · {{ issue.purpose }}
        <span v-if="issue.option" class="tag">{{ issue.option }}</span>
      </h2>
      <p class="soft">
        {{ issue.at.slice(0, 16).replace("T", " ") }} UTC, {{ issue.author }}, version {{ issue.version }},
        {{ issue.asked.system }}, {{ issue.asked.page }}
      </p>
      <p v-if="issue.remarks">{{ issue.remarks }}</p>
      <v-table class="plain" density="compact" :aria-label="`Files of issue ${issue.number}`">
        <tbody>
          <tr v-for="(file, name) in issue.files" :key="name">
            <td>
              <a class="link" :href="href(issue, String(name))" download>{{ FILE_NAMES[name] ?? name }}</a>
            </td>
            <td class="num">{{ size(file.bytes) }}</td>
            <td class="hash soft">{{ file.sha256 }}</td>
          </tr>
        </tbody>
      </v-table>
      <p><Act @click="open(issue)">Open as a project of its own</Act></p>
    </article>
  </div>
</template>

<style scoped>
.issue {
  max-width: 860px;
  border-bottom: 1px solid var(--ink);
  padding: 4px 0 8px;
  margin-bottom: 10px;
}
.hash {
  font-family: var(--mono);
  font-size: 11px;
  word-break: break-all;
}
</style>
