import { useRouter } from 'expo-router';
import type { Href } from 'expo-router';

/** Back to where the person came from; to `home` when this page was opened by its address. */
export function useBack(home: Href): () => void {
  const router = useRouter();
  return () => {
    if (router.canGoBack()) router.back();
    else router.replace(home);
  };
}
