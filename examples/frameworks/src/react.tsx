import { StrictMode } from 'react'
import { createRoot, hydrateRoot } from 'react-dom/client'
import { PierChart } from './chart.tsx'

const root = document.getElementById('root')!
const app = (
  <StrictMode>
    <PierChart />
  </StrictMode>
)
// A server may have drawn the page already: see server.tsx.
if (root.hasChildNodes()) hydrateRoot(root, app)
else createRoot(root).render(app)
