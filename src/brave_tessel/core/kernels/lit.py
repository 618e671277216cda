"""A flat sheet under a whole sky and one light that throws shadows: compiled, in chunks that stay in the cache.

Single precision throughout, in one small buffer at constant offsets, so that loops become vector instructions.
"""

from __future__ import annotations

import math

import numpy as np

from ..sheet import AnyArray, Raster
from .compiled import compiled

CHUNK = 128
# Where in the buffer each row of a chunk begins.
NX, NY, NZ, VX, VY, VZ, NV, ROUGH, METAL, OPEN, SUN = (CHUNK * row for row in range(11))
BASE, SKY, MIRROR = 11 * CHUNK, 14 * CHUNK, 17 * CHUNK
SINGLE, MULTI, LOBE, RX, RY, RZ = (CHUNK * row for row in range(20, 26))
OUT, DOWN, FACING, FRESNEL, F0 = 26 * CHUNK, 29 * CHUNK, 30 * CHUNK, 31 * CHUNK, 32 * CHUNK
LEVEL, PX, PY, WHOLE = 35 * CHUNK, 36 * CHUNK, 37 * CHUNK, 38 * CHUNK
BUFFER = 40 * CHUNK
# Where in the vector of numbers each stands.
FAR, EYE, PLACE, LIGHT, LUX, RADIUS, GAIN, AXES, BEHIND = 0, 1, 4, 8, 11, 14, 15, 18, 27
SIZE = 30
NUMBERS = 32
COAT, SHEEN, TURNED, GLOW, THROUGH, OWN_F0 = 1, 2, 4, 8, 16, 32
"""Which further maps count, as bits."""

ZERO, ONE, TWO, THREE, HALF = (np.float32(v) for v in (0, 1, 2, 3, 0.5))
PI, OVER_PI, OVER_21 = np.float32(math.pi), np.float32(1 / math.pi), np.float32(1 / 21)
TINY, DULL, LEAST, LEAST_ALPHA = np.float32(1e-6), np.float32(0.03), np.float32(0.02), np.float32(0.002)
DIELECTRIC, WATER = np.float32(0.04), np.float32(0.0204 - 0.04)
A1, A0, B1, B0, C1, C0 = (np.float32(v) for v in (2.0404, -0.3324, -4.7951, 0.6417, 2.7552, 0.6903))
SEEN, SEEN_ROUGH = np.float32(0.4), np.float32(0.6)
VELVET = np.float32(0.07)


@compiled
def _fetch_chunk(b: Raster, count: int, sharp: Raster, blurred: Raster, levels: Raster) -> None:
    """What of the sky lies in each pixel's mirror, into MIRROR: first where on its maps, then the values there."""
    last = np.float32(levels.size - 1)
    for c in range(CHUNK):
        x, y, z = b[RX + c], b[RY + c], b[RZ + c]
        inv = ONE / (abs(x) + abs(y) + abs(z) + TINY)
        px, py = x * inv, y * inv
        fx, fy = ONE - abs(py), ONE - abs(px)
        fx = fx if px >= ZERO else -fx
        fy = fy if py >= ZERO else -fy
        px = fx if z < ZERO else px
        py = fy if z < ZERO else py
        b[PX + c], b[PY + c] = px * HALF + HALF, py * HALF + HALF
    top = blurred.shape[0] - 1
    side, fine = np.float32(blurred.shape[1] - 2), np.float32(sharp.shape[0] - 2)
    for c in range(count):
        level = levels[int(b[ROUGH + c] * last + HALF)]
        low = min(int(level), top)
        share = level - np.float32(low)
        ax, ay = b[PX + c] * side + HALF, b[PY + c] * side + HALF
        ix, iy = int(ax), int(ay)
        fx, fy = ax - np.float32(ix), ay - np.float32(iy)
        w11 = fx * fy
        w10, w01 = fy - w11, fx - w11
        w00 = ONE - fx - w10
        v00, v01, v10, v11 = share * w00, share * w01, share * w10, share * w11
        m0 = v00 * blurred[low, iy, ix, 0] + v01 * blurred[low, iy, ix + 1, 0]
        m1 = v00 * blurred[low, iy, ix, 1] + v01 * blurred[low, iy, ix + 1, 1]
        m2 = v00 * blurred[low, iy, ix, 2] + v01 * blurred[low, iy, ix + 1, 2]
        m0 += v10 * blurred[low, iy + 1, ix, 0] + v11 * blurred[low, iy + 1, ix + 1, 0]
        m1 += v10 * blurred[low, iy + 1, ix, 1] + v11 * blurred[low, iy + 1, ix + 1, 1]
        m2 += v10 * blurred[low, iy + 1, ix, 2] + v11 * blurred[low, iy + 1, ix + 1, 2]
        left = ONE - share
        if low > 0:
            w00, w01, w10, w11 = left * w00, left * w01, left * w10, left * w11
            low -= 1
            m0 += w00 * blurred[low, iy, ix, 0] + w01 * blurred[low, iy, ix + 1, 0]
            m1 += w00 * blurred[low, iy, ix, 1] + w01 * blurred[low, iy, ix + 1, 1]
            m2 += w00 * blurred[low, iy, ix, 2] + w01 * blurred[low, iy, ix + 1, 2]
            m0 += w10 * blurred[low, iy + 1, ix, 0] + w11 * blurred[low, iy + 1, ix + 1, 0]
            m1 += w10 * blurred[low, iy + 1, ix, 1] + w11 * blurred[low, iy + 1, ix + 1, 1]
            m2 += w10 * blurred[low, iy + 1, ix, 2] + w11 * blurred[low, iy + 1, ix + 1, 2]
        else:
            ax, ay = b[PX + c] * fine + HALF, b[PY + c] * fine + HALF
            ix, iy = int(ax), int(ay)
            fx, fy = ax - np.float32(ix), ay - np.float32(iy)
            w11 = left * fx * fy
            w10, w01 = left * fy - w11, left * fx - w11
            w00 = left - left * fx - w10
            m0 += w00 * sharp[iy, ix, 0] + w01 * sharp[iy, ix + 1, 0]
            m1 += w00 * sharp[iy, ix, 1] + w01 * sharp[iy, ix + 1, 1]
            m2 += w00 * sharp[iy, ix, 2] + w01 * sharp[iy, ix + 1, 2]
            m0 += w10 * sharp[iy + 1, ix, 0] + w11 * sharp[iy + 1, ix + 1, 0]
            m1 += w10 * sharp[iy + 1, ix, 1] + w11 * sharp[iy + 1, ix + 1, 1]
            m2 += w10 * sharp[iy + 1, ix, 2] + w11 * sharp[iy + 1, ix + 1, 2]
        b[MIRROR + c], b[MIRROR + CHUNK + c], b[MIRROR + 2 * CHUNK + c] = m0, m1, m2


@compiled
def _energy_chunk(b: Raster, count: int, table: Raster) -> None:
    """Scale and bias of the split sum, into SINGLE and MULTI."""
    most = table.shape[0] - 2
    size = np.float32(table.shape[0] - 1)
    for c in range(count):
        y, x = b[ROUGH + c] * size, b[NV + c] * size
        i, j = min(most, int(y)), min(most, int(x))
        fy, fx = y - np.float32(i), x - np.float32(j)
        w11 = fx * fy
        w10, w01 = fy - w11, fx - w11
        w00 = ONE - fx - w10
        scale = w00 * table[i, j, 0] + w01 * table[i, j + 1, 0]
        bias = w00 * table[i, j, 1] + w01 * table[i, j + 1, 1]
        b[SINGLE + c] = scale + w10 * table[i + 1, j, 0] + w11 * table[i + 1, j + 1, 0]
        b[MULTI + c] = bias + w10 * table[i + 1, j, 1] + w11 * table[i + 1, j + 1, 1]


@compiled
def _look_chunk(b: Raster, row: int, first: int, n: Raster) -> None:
    """Where the eye stands from each pixel, and what lies in its mirror, in the scene's frame."""
    ex, ey, ez = n[EYE], n[EYE + 1], n[EYE + 2]
    if n[FAR] > ZERO:
        for c in range(CHUNK):
            b[VX + c], b[VY + c], b[VZ + c] = ex, ey, ez
    else:
        # Parts of a sheet may begin beyond its edge, and are seen where they wrap to.
        wide, tall = n[SIZE], n[SIZE + 1]
        y = n[PLACE + 2] + np.float32(row) * n[PLACE + 3]
        y = ey - (y - tall * math.floor(y / tall))
        x0, dx = n[PLACE] + np.float32(first) * n[PLACE + 1], n[PLACE + 1]
        yz, over = y * y + ez * ez, ONE / wide
        for c in range(CHUNK):
            x = x0 + np.float32(c) * dx
            x = ex - (x - wide * np.float32(math.floor(x * over)))
            scale = ONE / math.sqrt(x * x + yz)
            b[VX + c], b[VY + c], b[VZ + c] = x * scale, y * scale, ez * scale
    a0, a1, a2, a3, a4, a5 = n[AXES], n[AXES + 1], n[AXES + 2], n[AXES + 3], n[AXES + 4], n[AXES + 5]
    a6, a7, a8 = n[AXES + 6], n[AXES + 7], n[AXES + 8]
    for c in range(CHUNK):
        nx, ny, nz = b[NX + c], b[NY + c], b[NZ + c]
        vx, vy, vz = b[VX + c], b[VY + c], b[VZ + c]
        nv = nx * vx + ny * vy + nz * vz
        b[NV + c] = min(ONE, max(LEAST, nv))
        x, y, z = TWO * nv * nx - vx, TWO * nv * ny - vy, TWO * nv * nz - vz
        b[DOWN + c] = min(ONE, max(ZERO, -THREE * z))
        b[RX + c] = x * a0 + y * a3 + z * a6
        b[RY + c] = x * a1 + y * a4 + z * a7
        b[RZ + c] = x * a2 + y * a5 + z * a8


@compiled
def _lobe_chunk(b: Raster, n: Raster) -> None:
    """The key light's mirror lobe over its Fresnel term, times the cosine, into LOBE; Fresnel's power into FRESNEL."""
    lx, ly, lz, spread = n[LIGHT], n[LIGHT + 1], n[LIGHT + 2], HALF * n[RADIUS]
    for c in range(CHUNK):
        nx, ny, nz = b[NX + c], b[NY + c], b[NZ + c]
        hx, hy, hz = lx + b[VX + c], ly + b[VY + c], lz + b[VZ + c]
        scale = ONE / math.sqrt(hx * hx + hy * hy + hz * hz + TINY)
        facing = max(ZERO, nx * lx + ny * ly + nz * lz)
        half = max(ZERO, (nx * hx + ny * hy + nz * hz) * scale)
        lit = max(ZERO, (lx * hx + ly * hy + lz * hz) * scale)
        rough = b[ROUGH + c]
        # A light of some size shows as a lobe widened by its radius.
        alpha = max(rough * rough, LEAST_ALPHA) + spread
        a2 = alpha * alpha
        d = half * half * (a2 - ONE) + ONE
        nv = b[NV + c]
        g_l = facing * math.sqrt(nv * nv * (ONE - a2) + a2)
        g_v = nv * math.sqrt(facing * facing * (ONE - a2) + a2)
        b[FACING + c] = facing
        b[LOBE + c] = a2 * OVER_PI / (d * d) * HALF / (g_l + g_v + TINY) * facing
        left = ONE - lit
        square = left * left
        b[FRESNEL + c] = square * square * left


@compiled
def _irradiance_chunk(b: Raster, sh: Raster) -> None:
    for k in range(3):
        s0, s1, s2, s3 = sh[0, k], sh[1, k], sh[2, k], sh[3, k]
        s4, s5, s6, s7, s8 = sh[4, k], sh[5, k], sh[6, k], sh[7, k], sh[8, k]
        for c in range(CHUNK):
            x, y, z = b[NX + c], b[NY + c], b[NZ + c]
            level = s0 + s1 * y + s2 * z + s3 * x
            bent = s4 * x * y + s5 * y * z + s6 * (THREE * z * z - ONE) + s7 * x * z + s8 * (x * x - y * y)
            b[SKY + k * CHUNK + c] = max(ZERO, level + bent)


@compiled
def _joined_chunk(b: Raster, n: Raster) -> None:
    """Diffuse and mirror of the body, exposed, into OUT."""
    for k in range(3):
        lux, gain = n[LUX + k], n[GAIN + k]
        for c in range(CHUNK):
            base, metal, open_ = b[BASE + k * CHUNK + c], b[METAL + c], b[OPEN + c]
            scale, bias = b[SINGLE + c], b[MULTI + c]
            whole = scale + bias
            lost = ONE - whole
            # Metal and what is not are two things that lie mixed: each keeps its own energy (glTF 2.0, Appendix B).
            under = b[F0 + k * CHUNK + c]
            first, mean = under * scale + bias, under + (ONE - under) * OVER_21
            left = ONE - first - lost * first * mean / (ONE - mean * lost)
            diffuse = base * (ONE - metal) * left
            bright, mean = base * scale + bias, base + (ONE - base) * OVER_21
            more = lost * bright * mean / (ONE - mean * lost)
            single = first + metal * (bright - first)
            multi = (ONE - metal) * (ONE - first - left) + metal * more
            f0 = under + metal * (base - under)
            # Pale hollows light themselves (Jimenez et al. 2016).
            cubic = ((open_ * (A1 * base + A0) + (B1 * base + B0)) * open_ + (C1 * base + C0)) * open_
            around = b[SKY + k * CHUNK + c] * OVER_PI * max(open_, cubic)
            # Where the mirror looks into the sheet itself it sees the sheet, lit as it is.
            below = b[DOWN + c]
            seen = ONE - (ONE - open_) * (SEEN + SEEN_ROUGH * b[ROUGH + c])
            mirror = gain * b[MIRROR + k * CHUNK + c] * seen * (ONE - below) + around * base * below
            sun = lux * b[SUN + c]
            fresnel = f0 + (ONE - f0) * b[FRESNEL + c]
            kept = ONE + f0 * lost / whole
            value = diffuse * (around + sun * b[FACING + c] * OVER_PI) + single * mirror + multi * around
            b[OUT + k * CHUNK + c] = value + sun * b[LOBE + c] * fresnel * kept


@compiled
def _taken(
    b: Raster,
    count: int,
    row: int,
    first: int,
    colour: Raster,
    normal: Raster,
    rough: Raster,
    metal: Raster,
    open_sky: Raster,
    sunlit: Raster,
) -> None:
    for c in range(count):
        b[NX + c], b[NY + c] = normal[row, first + c, 0], normal[row, first + c, 1]
        b[NZ + c] = max(LEAST, normal[row, first + c, 2])
        b[BASE + c], b[BASE + CHUNK + c] = colour[row, first + c, 0], colour[row, first + c, 1]
        b[BASE + 2 * CHUNK + c] = colour[row, first + c, 2]
    for c in range(count):
        b[ROUGH + c] = min(ONE, max(DULL, rough[row, first + c]))
        b[METAL + c] = metal[row, first + c]
        b[OPEN + c] = open_sky[row, first + c]
        b[SUN + c] = sunlit[row, first + c]


@compiled
def _sheen_chunk(
    b: Raster, count: int, row: int, first: int, n: Raster, sheen: Raster, rough: Raster, table: Raster
) -> None:
    """Cloth: the fibres' own light over what is there (KHR_materials_sheen)."""
    most_at = table.shape[0] - 2
    size = np.float32(table.shape[0] - 1)
    lx, ly, lz = n[LIGHT], n[LIGHT + 1], n[LIGHT + 2]
    for c in range(count):
        at = first + c
        most = max(sheen[row, at, 0], max(sheen[row, at, 1], sheen[row, at, 2]))
        if most <= ZERO:
            continue
        r = min(ONE, max(VELVET, rough[row, at]))
        y, nv, nl = r * size, b[NV + c], b[FACING + c]
        x = nv * size
        i, j = min(most_at, int(y)), min(most_at, int(x))
        fy, fx = y - np.float32(i), x - np.float32(j)
        e = (table[i, j] * (ONE - fx) + table[i, j + 1] * fx) * (ONE - fy)
        e += (table[i + 1, j] * (ONE - fx) + table[i + 1, j + 1] * fx) * fy
        hx, hy, hz = lx + b[VX + c], ly + b[VY + c], lz + b[VZ + c]
        half = (b[NX + c] * hx + b[NY + c] * hy + b[NZ + c] * hz) / math.sqrt(hx * hx + hy * hy + hz * hz + TINY)
        inverse = ONE / (r * r)
        d = (TWO + inverse) * max(ZERO, ONE - half * half) ** (HALF * inverse) * HALF * OVER_PI
        lobe = d * nl / (np.float32(4) * (nl + nv - nl * nv) + TINY) * b[SUN + c]
        kept = ONE - most * e
        for k in range(3):
            around = b[SKY + k * CHUNK + c] * OVER_PI * b[OPEN + c]
            b[OUT + k * CHUNK + c] = b[OUT + k * CHUNK + c] * kept + sheen[row, at, k] * (
                e * around + n[LUX + k] * lobe
            )


@compiled
def _coat_chunk(
    b: Raster,
    count: int,
    row: int,
    first: int,
    n: Raster,
    weight: Raster,
    rough: Raster,
    normal: Raster,
    film: Raster,
    table: Raster,
    sharp: Raster,
    blurred: Raster,
    levels: Raster,
) -> None:
    """A clear coat of index 1.5 with a normal of its own over everything (KHR_materials_clearcoat); where ``film`` is
    1, of water (1.333).
    """
    heaviest = ZERO
    for c in range(count):
        heaviest = max(heaviest, weight[row, first + c])
    if heaviest <= ZERO:
        return
    for c in range(count):
        at = first + c
        b[NX + c], b[NY + c], b[NZ + c] = normal[row, at, 0], normal[row, at, 1], max(LEAST, normal[row, at, 2])
        b[ROUGH + c] = min(ONE, max(DULL, rough[row, at]))
    _look_chunk(b, row, first, n)
    _energy_chunk(b, count, table)
    _lobe_chunk(b, n)
    _fetch_chunk(b, count, sharp, blurred, levels)
    for c in range(count):
        w = weight[row, first + c]
        under = DIELECTRIC + film[min(row, film.shape[0] - 1), min(first + c, film.shape[1] - 1)] * WATER
        e = under * b[SINGLE + c] + b[MULTI + c]
        seen = (ONE - (ONE - b[OPEN + c]) * (SEEN + SEEN_ROUGH * b[ROUGH + c])) * (ONE - b[DOWN + c])
        fresnel = under + (ONE - under) * b[FRESNEL + c]
        for k in range(3):
            lobe = n[LUX + k] * b[SUN + c] * b[LOBE + c] * fresnel
            coat = e * n[GAIN + k] * b[MIRROR + k * CHUNK + c] * seen + lobe
            b[OUT + k * CHUNK + c] = b[OUT + k * CHUNK + c] * (ONE - w * e) + w * coat


@compiled
def _turned_chunk(b: Raster, count: int, row: int, first: int, n: Raster, strength: Raster, turn: Raster) -> None:
    """Brushed metal: the lobe drawn out along the brushing, and the mirror bent with it (KHR_materials_anisotropy)."""
    lx, ly, lz = n[LIGHT], n[LIGHT + 1], n[LIGHT + 2]
    for c in range(count):
        s = strength[row, first + c]
        if s <= ZERO:
            continue
        nx, ny, nz = b[NX + c], b[NY + c], b[NZ + c]
        tx, ty = math.cos(turn[row, first + c]), math.sin(turn[row, first + c])
        # The direction of brushing, laid into the face.
        dot = nx * tx + ny * ty
        tx, ty, tz = tx - dot * nx, ty - dot * ny, -dot * nz
        inv = ONE / math.sqrt(tx * tx + ty * ty + tz * tz + TINY)
        tx, ty, tz = tx * inv, ty * inv, tz * inv
        bx, by, bz = ny * tz - nz * ty, nz * tx - nx * tz, nx * ty - ny * tx
        alpha = max(b[ROUGH + c] * b[ROUGH + c], LEAST_ALPHA) + HALF * n[RADIUS]
        at, ab = alpha + (ONE - alpha) * s * s, alpha
        vx, vy, vz, nv = b[VX + c], b[VY + c], b[VZ + c], b[NV + c]
        hx, hy, hz = lx + vx, ly + vy, lz + vz
        scale = ONE / math.sqrt(hx * hx + hy * hy + hz * hz + TINY)
        th, bh = (tx * hx + ty * hy + tz * hz) * scale, (bx * hx + by * hy + bz * hz) * scale
        nh = (nx * hx + ny * hy + nz * hz) * scale
        a2 = at * ab
        f0, f1, f2 = ab * th, at * bh, a2 * nh
        w2 = a2 / (f0 * f0 + f1 * f1 + f2 * f2 + np.float32(1e-12))
        nl = b[FACING + c]
        tv, bv, tl, bl = (
            tx * vx + ty * vy + tz * vz,
            bx * vx + by * vy + bz * vz,
            tx * lx + ty * ly + tz * lz,
            (bx * lx + by * ly + bz * lz),
        )
        g_v = nl * math.sqrt(at * tv * at * tv + ab * bv * ab * bv + nv * nv)
        g_l = nv * math.sqrt(at * tl * at * tl + ab * bl * ab * bl + nl * nl)
        b[LOBE + c] = a2 * w2 * w2 * OVER_PI * HALF / (g_v + g_l + TINY) * nl
        # The mirror looks from a normal bent towards the eye across the brushing.
        cx, cy, cz = by * vz - bz * vy, bz * vx - bx * vz, bx * vy - by * vx
        gx, gy, gz = cy * bz - cz * by, cz * bx - cx * bz, cx * by - cy * bx
        straight = ONE - s * (ONE - b[ROUGH + c])
        bend = straight * straight * straight * straight
        mx, my, mz = gx + (nx - gx) * bend, gy + (ny - gy) * bend, gz + (nz - gz) * bend
        inv = ONE / math.sqrt(mx * mx + my * my + mz * mz + TINY)
        mx, my, mz = mx * inv, my * inv, mz * inv
        mv = mx * vx + my * vy + mz * vz
        x, y, z = TWO * mv * mx - vx, TWO * mv * my - vy, TWO * mv * mz - vz
        b[RX + c] = x * n[AXES] + y * n[AXES + 3] + z * n[AXES + 6]
        b[RY + c] = x * n[AXES + 1] + y * n[AXES + 4] + z * n[AXES + 7]
        b[RZ + c] = x * n[AXES + 2] + y * n[AXES + 5] + z * n[AXES + 8]


@compiled
def _through_chunk(b: Raster, count: int, row: int, first: int, n: Raster, through: Raster) -> None:
    """Thin things lit from behind: what they let through of the light there, in their own colour, in place of what
    they would throw back (KHR_materials_diffuse_transmission).
    """
    for k in range(3):
        for c in range(count):
            base, open_ = b[BASE + k * CHUNK + c], b[OPEN + c]
            scale, bias, under = b[SINGLE + c], b[MULTI + c], b[F0 + k * CHUNK + c]
            lost, first_, mean = ONE - scale - bias, under * scale + bias, under + (ONE - under) * OVER_21
            diffuse = base * (ONE - b[METAL + c]) * (ONE - first_ - lost * first_ * mean / (ONE - mean * lost))
            cubic = ((open_ * (A1 * base + A0) + (B1 * base + B0)) * open_ + (C1 * base + C0)) * open_
            around = b[SKY + k * CHUNK + c] * OVER_PI * max(open_, cubic)
            back = around + n[LUX + k] * b[SUN + c] * b[FACING + c] * OVER_PI
            b[OUT + k * CHUNK + c] += through[row, first + c] * diffuse * (n[BEHIND + k] - back)


@compiled
def _glow_chunk(b: Raster, count: int, row: int, first: int, n: Raster, glow: Raster) -> None:
    """Light it gives by itself."""
    for k in range(3):
        for c in range(count):
            b[OUT + k * CHUNK + c] += glow[row, first + c, k] * n[GAIN + k]


@compiled
def _own_chunk(b: Raster, count: int, row: int, first: int, f0: Raster) -> None:
    """Reflectance of its own."""
    for k in range(3):
        for c in range(count):
            b[F0 + k * CHUNK + c] = f0[row, first + c]


@compiled
def _shown_chunk(b: Raster, count: int, row: int, first: int, tone: AnyArray, out: AnyArray) -> None:
    """Exposed light as codes."""
    last, steps = tone.size - 1, np.float32(tone.size)
    for k in range(3):
        for c in range(CHUNK):
            value = max(ZERO, b[OUT + k * CHUNK + c])
            b[OUT + k * CHUNK + c] = value / (ONE + value) * steps
    for c in range(count):
        for k in range(3):
            out[row, first + c, k] = tone[max(0, min(last, int(b[OUT + k * CHUNK + c])))]


@compiled
def _buffer() -> Raster:
    """A chunk's buffer with values that can be reckoned with, also where nothing is put."""
    b = np.zeros(BUFFER, np.float32)
    for c in range(CHUNK):
        b[NZ + c] = ONE
        for k in range(3):
            b[F0 + k * CHUNK + c] = DIELECTRIC
    return b


@compiled
def lit_rows(
    start: int,
    end: int,
    colour: Raster,
    normal: Raster,
    rough: Raster,
    metal: Raster,
    open_sky: Raster,
    sunlit: Raster,
    n: Raster,
    sh: Raster,
    sharp: Raster,
    blurred: Raster,
    levels: Raster,
    table: Raster,
    tone: AnyArray,
    extras: int,
    f0: Raster,
    coat: Raster,
    coat_rough: Raster,
    coat_normal: Raster,
    film: Raster,
    sheen: Raster,
    sheen_rough: Raster,
    sheen_table: Raster,
    strength: Raster,
    turn: Raster,
    glow: Raster,
    through: Raster,
    out: AnyArray,
) -> None:
    """Rows of the picture. ``extras`` says which further maps count; the others may be of any size."""
    columns = rough.shape[1]
    b = _buffer()
    for row in range(start, end):
        for first in range(0, columns, CHUNK):
            count = min(CHUNK, columns - first)
            _taken(b, count, row, first, colour, normal, rough, metal, open_sky, sunlit)
            if extras & OWN_F0:
                _own_chunk(b, count, row, first, f0)
            _look_chunk(b, row, first, n)
            _energy_chunk(b, count, table)
            _lobe_chunk(b, n)
            if extras & TURNED:
                _turned_chunk(b, count, row, first, n, strength, turn)
            _irradiance_chunk(b, sh)
            _fetch_chunk(b, count, sharp, blurred, levels)
            _joined_chunk(b, n)
            if extras & THROUGH:
                _through_chunk(b, count, row, first, n, through)
            if extras & SHEEN:
                _sheen_chunk(b, count, row, first, n, sheen, sheen_rough, sheen_table)
            if extras & COAT:
                _coat_chunk(b, count, row, first, n, coat, coat_rough, coat_normal, film, table, sharp, blurred, levels)
            if extras & GLOW:
                _glow_chunk(b, count, row, first, n, glow)
            _shown_chunk(b, count, row, first, tone, out)
