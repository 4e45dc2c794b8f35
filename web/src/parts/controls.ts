/** How each control of the component library looks and is spaced: the only place where that is said. */
import type { VuetifyOptions } from "vuetify";
import { VBtn } from "vuetify/components/VBtn";

const FIELD = { density: "compact", variant: "outlined", hideDetails: "auto", color: "primary" } as const;
const CHOICE = { density: "compact", hideDetails: true, color: "primary" } as const;

/** Two buttons that are everywhere: one that does something, and one that reads as text. */
export const ALIASES: VuetifyOptions["aliases"] = { Act: VBtn, TextAct: VBtn };

export const DEFAULTS: VuetifyOptions["defaults"] = {
  global: { ripple: false, rounded: 0 },
  VBtn: { density: "comfortable", variant: "outlined", size: "small" },
  Act: { density: "comfortable", variant: "outlined", size: "small", class: "act" },
  TextAct: { density: "compact", variant: "plain", size: "small", class: "link" },
  VBtnToggle: { density: "compact", variant: "outlined", divided: true },
  VTextField: FIELD,
  VTextarea: FIELD,
  VSelect: FIELD,
  VAutocomplete: { ...FIELD, autoSelectFirst: true },
  VCombobox: FIELD,
  VNumberInput: { ...FIELD, controlVariant: "hidden" },
  VFileInput: { ...FIELD, clearable: false, prependIcon: "" },
  VCheckbox: CHOICE,
  VCheckboxBtn: CHOICE,
  VRadio: CHOICE,
  VRadioGroup: CHOICE,
  VSwitch: CHOICE,
  VSlider: { ...CHOICE, thumbSize: 14, trackSize: 2 },
  VList: { density: "compact" },
  VTable: { density: "compact" },
  VDataTableVirtual: { density: "compact" },
  VAlert: { density: "compact", variant: "tonal" },
  VCard: { elevation: 0, border: true },
};
