import { alikeStocks } from '@melto/services/house/alikeStocks';
import { measuredBrighteners } from '@melto/services/house/measuredBrightener';
import { libraryStocks } from '@melto/services/house/library';
import { StocksSurface } from '@/features/library/StocksSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Stocks' };

export default async function Page() {
  const context = await pageContext();
  const [stocks, alike, brighteners] = await Promise.all([
    libraryStocks(context),
    alikeStocks(context),
    measuredBrighteners(context),
  ]);
  return <StocksSurface stocks={stocks} alike={alike} brighteners={brighteners} />;
}
