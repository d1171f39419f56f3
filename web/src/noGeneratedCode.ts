import { z } from 'zod'

// The page policy forbids code generation, which zod would otherwise probe for. Each entry of the
// page imports this before any schema is made.
z.config({ jitless: true })
