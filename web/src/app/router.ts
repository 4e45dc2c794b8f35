import { createRouter, createWebHistory } from "vue-router";
import { followRouter } from "@/view/address";
import { STAGES } from "./stages";

const pages: Record<string, () => Promise<unknown>> = {
  place: () => import("@/stages/place/PlaceStage.vue"),
  fabric: () => import("@/stages/fabric/FabricStage.vue"),
  schedules: () => import("@/stages/schedules/SchedulesStage.vue"),
  uses: () => import("@/stages/uses/UsesStage.vue"),
  rooms: () => import("@/stages/rooms/RoomsStage.vue"),
  loads: () => import("@/stages/loads/LoadsStage.vue"),
  air: () => import("@/stages/air/AirStage.vue"),
  water: () => import("@/stages/water/WaterStage.vue"),
  kit: () => import("@/stages/kit/KitStage.vue"),
  compare: () => import("@/stages/compare/CompareStage.vue"),
  issue: () => import("@/stages/issue/IssueStage.vue"),
  year: () => import("@/stages/year/YearStage.vue"),
};

export const router = createRouter({
  history: createWebHistory("/"),
  routes: [
    { path: "/", name: "start", component: { template: "" } },
    ...STAGES.map((stage) => ({
      path: `/:project/${stage.key}`,
      name: stage.key,
      component: pages[stage.key]!,
    })),
    { path: "/:project/proof", name: "proof", component: () => import("@/stages/proof/ProofPage.vue") },
    { path: "/invited/:token", name: "invited", component: () => import("./InvitedPage.vue"), props: true },
    {
      path: "/new-password/:person/:token",
      name: "new password",
      component: () => import("./NewPasswordPage.vue"),
      props: true,
    },
    { path: "/:rest(.*)*", redirect: "/" },
  ],
});
followRouter(router);
