#!/usr/bin/env node
import '../dist/hovlix.mjs';
