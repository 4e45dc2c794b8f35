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
import { ALIASES, DEFAULTS } from "@/parts/controls";
import App from "./App.vue";
import { router } from "./router";

const vuetify = createVuetify({
  icons: { defaultSet: "mdi", aliases, sets: { mdi } },
  aliases: ALIASES,
  defaults: DEFAULTS,
  theme: {
    defaultTheme: "day",
    themes: {
      day: {
        dark: false,
        colors: {
          background: "#F7F5F0",
          surface: "#F7F5F0",
          primary: "#1E6F66",
          error: "#B8482B",
          warning: "#85560A",
        },
      },
      night: {
        dark: true,
        colors: {
          background: "#1D2126",
          surface: "#1D2126",
          primary: "#5FB3A6",
          error: "#DD7A5B",
          warning: "#E0A52C",
        },
      },
    },
  },
});

createApp(App).use(createPinia()).use(router).use(vuetify).mount("#app");
