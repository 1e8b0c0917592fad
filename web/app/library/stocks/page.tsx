import { alikeStocks } from '@melto/services/house/alikeStocks';
import { measuredBrighteners } from '@melto/services/house/measuredBrightener';
import { libraryStocks } from '@melto/services/house/library';
import { StocksSurface } from '@/features/library/StocksSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Stocks' };

export default async function Page() {
  const [stocks, alike, brighteners] = await Promise.all([
    libraryStocks(await pageContext()),
    alikeStocks(await pageContext()),
    measuredBrighteners(await pageContext()),
  ]);
  return <StocksSurface stocks={stocks} alike={alike} brighteners={brighteners} />;
}
