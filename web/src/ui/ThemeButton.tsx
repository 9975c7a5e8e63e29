import { Moon, Sun } from "lucide-react";
import { IconButton } from "./IconButton.tsx";
import { useTheme } from "./theme.ts";

export const ThemeButton = () => {
  const [theme, setTheme] = useTheme();
  const evening = theme === "evening";
  return (
    <IconButton label={evening ? "Light theme" : "Evening theme"} onClick={() => setTheme(evening ? "ash" : "evening")}>
      {evening ? <Sun size={16} /> : <Moon size={16} />}
    </IconButton>
  );
};
