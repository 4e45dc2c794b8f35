import "@fontsource/ibm-plex-sans/400.css";
import "@fontsource/ibm-plex-sans/500.css";
import "@fontsource/ibm-plex-sans/600.css";
import "@fontsource/ibm-plex-sans-condensed/400.css";
import "@fontsource/ibm-plex-sans-condensed/500.css";
import "@fontsource/ibm-plex-sans-condensed/600.css";
import "@fontsource/ibm-plex-mono/400.css";
import "./base.css";
import "vuetify/styles";
import "./tokens.css";
import { createPinia } from "pinia";
import { createApp } from "vue";
import { createVuetify } from "vuetify";
import { aliases, mdi } from "vuetify/iconsets/mdi-svg";
import App from "./App.vue";
import { router } from "./router";

/** How each control looks and is spaced, once for all places. */
const FIELD = { density: "compact", variant: "outlined", hideDetails: "auto", color: "primary" } as const;
const CHOICE = { density: "compact", hideDetails: true, color: "primary" } as const;
const DEFAULTS = {
  global: { ripple: false, rounded: 0 },
  VBtn: { density: "comfortable", variant: "outlined", size: "small" },
  VBtnToggle: { density: "compact", variant: "outlined", divided: true, color: "primary" },
  VTextField: FIELD,
  VTextarea: FIELD,
  VSelect: FIELD,
  VAutocomplete: FIELD,
  VCombobox: FIELD,
  VNumberInput: FIELD,
  VFileInput: { ...FIELD, clearable: false, prependIcon: "" },
  VCheckbox: CHOICE,
  VCheckboxBtn: CHOICE,
  VRadio: CHOICE,
  VRadioGroup: CHOICE,
  VSwitch: CHOICE,
  VList: { density: "compact" },
  VTable: { density: "compact" },
  VDataTableVirtual: { density: "compact" },
  VAlert: { density: "compact", variant: "tonal" },
  VCard: { elevation: 0, border: true },
};

const vuetify = createVuetify({
  icons: { defaultSet: "mdi", aliases, sets: { mdi } },
  defaults: DEFAULTS,
  theme: {
    defaultTheme: "day",
    themes: {
      day: {
        dark: false,
        colors: { background: "#F7F5F0", surface: "#F7F5F0", primary: "#1E6F66", error: "#B8482B" },
      },
      night: {
        dark: true,
        colors: { background: "#1D2126", surface: "#1D2126", primary: "#5FB3A6", error: "#DD7A5B" },
      },
    },
  },
});

createApp(App).use(createPinia()).use(router).use(vuetify).mount("#app");
