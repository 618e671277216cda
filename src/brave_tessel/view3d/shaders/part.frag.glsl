#version 330 core
// Metallic-roughness as in glTF 2.0, Appendix B: GGX, height-correlated Smith, Schlick.
in vec3 position;
in vec3 normal;
in vec3 uvw;
in vec4 in_light;
#ifndef MOVING
in vec3 in_open[3];
#endif
#ifdef NEAR
in vec3 lifted;                  // where the mesh of the relief is met; position stays on the skin
in float turned;                 // under 0 where the face is seen from behind; 1 to 2 as it is lifted
#endif
uniform sampler2D base_colour;   // sRGB codes, decoded by the sampler
uniform sampler2D normal_map;
uniform sampler2D orm;
uniform sampler2D shadow_map;    // of the light that throws shadows
uniform sampler2D open_map;      // of three directions of the sky beside each other, at rest
uniform sampler2D sharp;         // the sky, octahedral, exposed
uniform sampler2DArray sky;      // the sky blurred by roughness
uniform sampler2D energy;        // split sum: by the eye's cosine and roughness
uniform sampler3D openness;      // how much of the sky is seen from where: mean, and three slopes
uniform float presumed;           // frames that what is learnt of the sky counts for
uniform sampler3D clear_sky;   // the same, kept apart by walls
uniform vec3 open_low;           // the box it fills, m
uniform vec3 open_size;
uniform float open_step;          // off the face, so that no cell behind it counts, m
uniform float open_known;        // 0 before any of it is known
uniform vec3 harmonics[9];       // illuminance by the normal, exposed, constants put in
uniform vec3 sun_light;          // illuminance on a face turned to it, exposed
uniform float sun_radius;
uniform vec4 open_sample[3];     // directions of the sky, and their weights
uniform float finer;             // mip bias: finer where frames are added up
uniform vec3 eye;
uniform vec3 sun;                // unit vector to the sun
#ifdef FINISHED
uniform sampler2D lacquer;       // coat, its roughness, sheen roughness, translucency
uniform sampler2D sheen_map;     // alpha: where the coat is water
uniform sampler2D glow_map;
uniform sampler2D face_map;      // the coat's own normal
uniform sampler2D brushed_map;   // twice the angle of brushing as a vector, its strength; alpha: straight through
uniform vec3 glow_gain;
#endif
uniform float cut;               // opacity from which on something is there; 0 without any
uniform vec3 bare;
uniform bool textured;
uniform bool shadows;
uniform float shadow_slack;
#ifdef FLAT
uniform int shows;               // 3 base colour, 4 roughness, 5 density
uniform float per_m;             // pixels of a surface a metre, at true size
uniform sampler2D heat;
#endif
uniform vec2 repeat_m;
#ifdef RELIEF
uniform sampler2D height_map;    // 0 lowest to 1 highest
uniform vec2 relief_m;           // lowest and highest above the skin, m
#endif
#ifdef SIDED
uniform vec3 axes[3];            // a three-sided laying: where its sides look from
uniform vec3 frames[12];         // along and up of each side, seen from its near and its far side
uniform vec3 origin;
uniform float sharpness;
uniform float by_relief;
uniform vec4 finish;             // rows of the turn about the datum
uniform vec2 slide;
#endif
layout(location = 0) out vec4 colour;   // what is not diffuse light of the sky; how much of one direction is open
layout(location = 1) out vec4 around;
#ifndef MOVING
layout(location = 2) out vec4 guide;    // normal and distance, for the filter
#endif
// diffuse light of the sky, unshadowed; that direction's whole weight
vec2 uv;

const float PI = 3.14159265;

// Unit directions in which u and v grow on the skin.
void skin(vec3 n, out vec3 t, out vec3 b) {
    vec3 dp1 = dFdx(position), dp2 = dFdy(position);
    vec2 du1 = dFdx(uv), du2 = dFdy(uv);
    vec3 p2 = cross(dp2, n), p1 = cross(n, dp1);
    t = p2 * du1.x + p1 * du2.x;
    b = p2 * du1.y + p1 * du2.y;
    float scale = inversesqrt(max(max(dot(t, t), dot(b, b)), 1e-20));
    t *= scale; b *= scale;
}

// Normals that are averaged are short: what they spread over makes the face rougher (Toksvig 2005).
float widened(float roughness, float size) {
#ifdef MOVING
    return roughness;
#endif
    float spread = clamp((1.0 - size) / max(size, 0.1) - 0.004, 0.0, 0.5);
    float a = roughness * roughness;
    return sqrt(sqrt(min(1.0, a * a + 2.0 * spread)));
}

vec3 mapped(vec3 n, vec3 t, vec3 b, vec2 place, inout float roughness) {
    vec3 m = texture(normal_map, place, finer).xyz * 2.0 - 1.0;
    roughness = widened(roughness, length(m));
    return normalize(t * m.x + b * m.y + n * m.z);
}

#ifdef RELIEF
#ifdef MOVING
const float STEPS = 10.0;
#else
const float STEPS = 40.0;
#endif
vec2 gx, gy;

float ground(vec2 place) { return mix(relief_m.x, relief_m.y, textureGrad(height_map, place, gx, gy).r); }

// Steps for a way of so many repeats: one a pixel of the screen, none where it is less than half a pixel.
float steps_of(vec2 way) {
    float pixel = max(max(length(gx), length(gy)), 1e-9);
    return min(ceil(length(way) / pixel - 0.5), STEPS);
}

// Where the eye's ray first meets the relief (parallax occlusion: steps down through it, then between the last two),
// and the level there, m over the skin.
vec2 met(vec3 n, vec3 t, vec3 b, vec3 v, out float level) {
    gx = dFdx(uv); gy = dFdy(uv);
    vec3 along = vec3(dot(v, t) / repeat_m.x, dot(v, b) / repeat_m.y, max(dot(v, n), 0.12));
    vec2 slide = along.xy / along.z, from = uv;
#ifdef NEAR
    // The same ray, where it goes through the skin.
    vec3 off = lifted - position;
    from += vec2(dot(off, t), dot(off, b)) / repeat_m - slide * dot(off, n);
#endif
    float steps = steps_of(slide * (relief_m.y - relief_m.x));
    if (steps < 1.0) {
        level = ground(from);
        return from + slide * level;
    }
    float rise = (relief_m.y - relief_m.x) / steps, before = 0.0;
    level = relief_m.y;
    for (float k = 0.0; k <= steps; k += 1.0) {
        float over = level - ground(from + slide * level);
        if (over <= 0.0) {
            if (k > 0.0) level += rise * -over / max(before - over, 1e-7);
            return from + slide * level;
        }
        before = over;
        level -= rise;
    }
    level = relief_m.x;
    return from + slide * level;
}

// How much of the sun's disc stands clear of the relief between a place and the highest level.
float clear_sun(vec3 n, vec3 t, vec3 b, vec2 place, float level) {
    float up = dot(sun, n);
    if (up <= 0.0) return 1.0;
    vec2 slide = vec2(dot(sun, t) / repeat_m.x, dot(sun, b) / repeat_m.y) / max(up, 0.05);
    float left = relief_m.y - level, steps = steps_of(slide * left);
    if (steps < 1.0) return 1.0;
    float rise = left / steps, least = 1.0;
    // The disc is a little wider than it is, so that a step between two texels does not show as a saw.
    float wide = (max(sun_radius, 0.012) * 2.0) / max(up, 0.05);
    for (float k = 0.6; k <= steps; k += 1.0) {
        float way = rise * k, over = ground(place + slide * way) - (level + way);
        least = min(least, 0.5 - over / (wide * way + 4e-4));
        if (least <= 0.0) return 0.0;
    }
    return least;
}
#endif

float lit_share() {
    if (!shadows) return 1.0;
    vec3 place = in_light.xyz / in_light.w * 0.5 + 0.5;
    if (place.x < 0.0 || place.x > 1.0 || place.y < 0.0 || place.y > 1.0 || place.z > 1.0) return 1.0;
    float deep = place.z - shadow_slack;
#ifdef MOVING
    vec2 texel = 1.0 / vec2(textureSize(shadow_map, 0));
    float sum = 0.0;
    for (int x = 0; x <= 1; ++x)
        for (int y = 0; y <= 1; ++y)
            sum += deep > texture(shadow_map, place.xy + (vec2(x, y) - 0.5) * texel * 2.0).r ? 0.0 : 1.0;
    return sum / 4.0;
#else
    return deep > texture(shadow_map, place.xy).r ? 0.0 : 1.0;
#endif
}

#ifndef MOVING
float open_share(int k) {
    vec3 place = in_open[k] * 0.5 + 0.5;
    if (place.x < 0.0 || place.x > 1.0 || place.y < 0.0 || place.y > 1.0 || place.z > 1.0) return 1.0;
    return place.z - shadow_slack > texture(open_map, vec2((place.x + float(k)) / 3.0, place.y)).r ? 0.0 : 1.0;
}
#endif

vec2 bordered(vec2 p, vec2 side) { return (p * (side - 2.0) + 1.0) / side; }

// The sky at a level of roughness; octahedral maps have a border of one texel.
vec3 sky_in(vec3 d, float roughness) {
    d /= abs(d.x) + abs(d.y) + abs(d.z);
    vec2 p = d.z >= 0.0 ? d.xy : (1.0 - abs(d.yx)) * vec2(d.x >= 0.0 ? 1.0 : -1.0, d.y >= 0.0 ? 1.0 : -1.0);
    p = p * 0.5 + 0.5;
    float level = 5.0 * pow(max(roughness - 0.05, 0.0) / 0.95, 0.7143);
#ifdef MOVING
    if (level < 0.5) return textureLod(sharp, bordered(p, vec2(textureSize(sharp, 0))), 0.0).rgb;
    return textureLod(sky, vec3(bordered(p, vec2(130.0)), floor(level - 0.5)), 0.0).rgb;
#endif
    float low = floor(level);
    vec3 below = low < 0.5 ? textureLod(sharp, bordered(p, vec2(textureSize(sharp, 0))), 0.0).rgb : textureLod(sky, vec3(bordered(p, vec2(130.0)), low - 1.0), 0.0).rgb;
    return mix(below, textureLod(sky, vec3(bordered(p, vec2(130.0)), min(low, 4.0)), 0.0).rgb, level - low);
}

vec3 irradiance(vec3 n) {
    return max(vec3(0.0), harmonics[0] + harmonics[1] * n.y + harmonics[2] * n.z + harmonics[3] * n.x
        + harmonics[4] * n.x * n.y + harmonics[5] * n.y * n.z + harmonics[6] * (3.0 * n.z * n.z - 1.0)
        + harmonics[7] * n.x * n.z + harmonics[8] * (n.x * n.x - n.y * n.y));
}

// Which share of the sky is open from here in a direction.
float open_towards(vec4 field, vec3 d) {
    return clamp(field.x + dot(field.yzw, d), 0.0, 1.0);
}

struct Skin { vec3 base; vec3 packed_orm; vec3 n; float size; };

#ifdef SIDED
// Each side is looked at by itself and counts by where the face looks; the higher surface wins where they meet.
Skin sided(vec3 n) {
    Skin found = Skin(vec3(0.0), vec3(0.0), vec3(0.0), 1.0);
    float whole = 0.0;
    vec3 away = position - origin, bent = vec3(0.0);
    for (int side = 0; side < 3; ++side) {
        float facing = dot(axes[side], n);
        int far = side * 4 + (facing < 0.0 ? 2 : 0);
        vec3 along = frames[far], up = frames[far + 1];
        vec2 place = vec2(dot(along, away), dot(up, away)) - slide;
        place = vec2(dot(finish.xy, place), dot(finish.zw, place)) / repeat_m;
        float share = pow(abs(facing), sharpness);
        vec2 gx = dFdx(place), gy = dFdy(place);
        if (share < 1e-4) continue;
        vec3 base = textureGrad(base_colour, place, gx, gy).rgb;
        vec3 m = textureGrad(normal_map, place, gx, gy).xyz * 2.0 - 1.0;
        // Pale and raised go together often enough to stand for the height that is not uploaded here.
        share *= exp2(by_relief * 8.0 * (dot(base, vec3(0.2126, 0.7152, 0.0722)) - 0.3));
        vec3 t = normalize(finish.x * along + finish.y * up), b = normalize(finish.z * along + finish.w * up);
        found.base += share * base;
        found.packed_orm += share * textureGrad(orm, place, gx, gy).rgb;
        bent += share * (t * m.x + b * m.y + n * m.z);
        whole += share;
    }
    found.base /= whole; found.packed_orm /= whole;
    found.size = length(bent) / whole;
    found.n = normalize(bent);
    return found;
}
#endif

void main() {
    vec3 n = normalize(normal);
#ifdef NEAR
    vec3 at = lifted;
    if (!gl_FrontFacing && turned < 0.0) n = -n;
#else
    vec3 at = position;
    if (!gl_FrontFacing) n = -n;
#endif
    vec3 v = normalize(eye - at);
    vec3 face = n;
    vec3 base = bare;
    float occlusion = 1.0, roughness = 0.75, metal = 0.0, clear = 1.0;
    vec2 skin_place = vec2(0.0);
    vec3 t = vec3(0.0), b = vec3(0.0);
    uv = uvw.xy / uvw.z;
#ifdef SIDED
    if (textured) {
        Skin found = sided(n);
        base = found.base; n = found.n;
        occlusion = found.packed_orm.r; metal = found.packed_orm.b;
        roughness = widened(max(found.packed_orm.g, 0.045), found.size);
    }
    float strongest = 0.0;
    for (int side = 0; side < 3; ++side) {
        float facing = dot(axes[side], face);
        int far = side * 4 + (facing < 0.0 ? 2 : 0);
        vec2 place = vec2(dot(frames[far], position - origin), dot(frames[far + 1], position - origin)) - slide;
        if (abs(facing) > strongest) { strongest = abs(facing); uv = place / repeat_m; }
    }
#else
    if (textured && uvw.z > 1e-6) {
        skin(n, t, b);
#ifdef RELIEF
        float level;
        vec2 place = met(n, t, b, v, level);
#ifdef NEAR
        // Where the facets stand out over the relief, its ray goes by: what lies behind is seen.
        if (abs(turned) > 1.99 && level < dot(lifted - position, n) - 0.35 * (relief_m.y - relief_m.x)) discard;
#endif
        clear = clear_sun(n, t, b, place, level);
#else
        vec2 place = uv;
#endif
        vec4 texel = texture(base_colour, place, finer);
        if (texel.a < cut) discard;
        base = texel.rgb;
        skin_place = place;
        vec3 packed_orm = texture(orm, place, finer).rgb;
        occlusion = packed_orm.r; roughness = max(packed_orm.g, 0.045); metal = packed_orm.b;
        n = mapped(n, t, b, place, roughness);
    }
#endif
#ifdef CHEQUER
    {
        vec2 cell = floor(uv * repeat_m * 10.0);
        base = mod(cell.x + cell.y, 2.0) < 1.0 ? vec3(0.55) : vec3(0.22);
        roughness = 0.9; metal = 0.0;
    }
#endif
#ifdef FLAT
    // Codes as they are: what is not laid on stays pale.
    vec3 plainly = base;
    if (shows > 3) {
        vec2 du1 = dFdx(uv), du2 = dFdy(uv);
        float grows = abs(du1.x * du2.y - du1.y * du2.x) / max(length(cross(dFdx(position), dFdy(position))), 1e-20);
        float dense = per_m * sqrt(grows * repeat_m.x * repeat_m.y);
        float place = shows == 4 ? roughness : (log2(max(dense, 1.0)) - 6.0) / 7.0;
        plainly = texture(heat, vec2(clamp(place, 0.002, 0.998), 0.5)).rgb;
    }
    if (!textured) plainly = vec3(0.6);
    float facing = 0.75 + 0.25 * abs(dot(face, v));
    colour = vec4(plainly * (textured && shows == 3 ? 1.0 : facing), 1.0);
    around = vec4(0.0, 0.0, 0.0, 1.0);
#ifndef MOVING
    guide = vec4(face, length(eye - at));
#endif
    return;
#endif
    vec3 h = normalize(v + sun);
    float nl = max(dot(n, sun), 0.0), nv = clamp(dot(n, v), 0.02, 1.0), nh = max(dot(n, h), 0.0), vh = max(dot(v, h), 0.0);
    float a = roughness * roughness + 0.5 * sun_radius, a2 = a * a;
    float d = nh * nh * (a2 - 1.0) + 1.0;
    float ggx = a2 / (PI * d * d);
    float smith = 0.5 / (nl * sqrt(nv * nv * (1.0 - a2) + a2) + nv * sqrt(nl * nl * (1.0 - a2) + a2) + 1e-5);
    float lobe = ggx * smith;
    vec3 r = reflect(-v, n);
#ifdef FINISHED
    // Brushed: the lobe drawn out along the brushing, and the mirror bent with it (KHR_materials_anisotropy).
    vec4 brushed = texture(brushed_map, skin_place, finer);
    if (brushed.b > 0.01 && dot(t, t) > 0.0) {
        float turn = 0.5 * atan(brushed.g * 2.0 - 1.0, brushed.r * 2.0 - 1.0), s = brushed.b;
        vec3 along = t * cos(turn) + b * sin(turn);
        along = normalize(along - n * dot(n, along));
        vec3 across = cross(n, along);
        float aa = mix(a, 1.0, s * s), ab = a, both = aa * ab;
        vec3 w = vec3(ab * dot(along, h), aa * dot(across, h), both * nh);
        float w2 = both / max(dot(w, w), 1e-12);
        float gv = nl * length(vec3(aa * dot(along, v), ab * dot(across, v), nv));
        float gl = nv * length(vec3(aa * dot(along, sun), ab * dot(across, sun), nl));
        lobe = both * w2 * w2 / PI * 0.5 / (gv + gl + 1e-5);
        float straight = 1.0 - s * (1.0 - roughness);
        vec3 bent = normalize(mix(cross(cross(across, v), across), n, straight * straight * straight * straight));
        r = reflect(-v, bent);
    }
#endif
    vec3 f0 = mix(vec3(0.04), base, metal);
    vec3 f = f0 + (1.0 - f0) * pow(1.0 - vh, 5.0);
    vec2 split = texture(energy, vec2(nv, roughness) * (31.0 / 32.0) + 0.5 / 32.0).rg;
    float whole = split.x + split.y, lost = 1.0 - whole;
    // Metal and what is not are two things that lie mixed: each keeps its own energy (glTF 2.0, Appendix B).
    float first = 0.04 * split.x + split.y, second = lost * first * 0.0857143 / (1.0 - 0.0857143 * lost);
    vec3 bright = base * split.x + split.y, mean = base + (1.0 - base) / 21.0;
    vec3 single = mix(vec3(first), bright, metal), multi = mix(vec3(second), lost * bright * mean / (1.0 - mean * lost), metal);
    vec3 diffuse = base * (1.0 - metal) * (1.0 - first - second);

    vec3 beside = (position + face * open_step - open_low) / open_size;
    vec4 field = open_known > 0.0 ? textureLod(openness, beside, 0.0) : vec4(1.0, 0.0, 0.0, 0.0);
    // The field holds the face's own hemisphere too: what a free face would see counts as all.
    float free = clamp(0.5 + 0.75 * max(dot(r, face), 0.0), 0.5, 1.0);
    float seen = min(1.0, open_towards(field, r) / free) * (1.0 - (1.0 - occlusion) * (0.4 + 0.6 * roughness));
    // What hides the sky is itself lit by what comes in, again and again, in the colour of pale stone.
    vec3 pale = vec3(0.5, 0.475, 0.44);
    // Corners that see no sky at all are lit by what stands some cells away.
    float lively = open_known > 0.0 ? max(field.x, 0.12 * textureLod(openness, beside, 3.0).x) : 1.0;
    vec3 room = (harmonics[0] + 0.25 * sun_light) / PI * pale * lively / (1.0 - pale * (1.0 - lively));
    vec3 mirror = sky_in(r, roughness) * seen + room * (1.0 - seen);
    // Mirrored below the face's own plane lies the face.
    float below = clamp(-3.0 * dot(r, face), 0.0, 1.0);

    vec3 lux = irradiance(n) / PI;
    vec3 light = sun_light * (dot(face, sun) > 0.0 ? lit_share() * clear : 0.0);
    vec3 direct = diffuse / PI * nl * light + lobe * f * nl * light * (1.0 + f0 * lost / whole);
    // Pale hollows light themselves (Jimenez et al. 2016).
    vec3 c1 = 2.0404 * base - 0.3324, c2 = -4.7951 * base + 0.6417, c3 = 2.7552 * base + 0.6903;
    vec3 bounced = max(vec3(occlusion), ((occlusion * c1 + c2) * occlusion + c3) * occlusion);
    float open = open_towards(field, n);
    vec3 gathered = (diffuse + multi) * lux * bounced;
    vec3 rest = single * mix(mirror, lux * base, below);
    vec3 shown = direct + rest + (diffuse + multi) * room * (1.0 - open);
#ifdef FINISHED
    // Cloth, lacquer, light of its own, light that comes through: over what is there.
    {
        vec4 four = texture(lacquer, skin_place, finer);
        vec4 woven = texture(sheen_map, skin_place, finer);
        vec3 cloth = woven.rgb;
        float most = max(cloth.r, max(cloth.g, cloth.b));
        if (most > 0.001) {
            float inverse = 1.0 / max(four.b * four.b, 0.005);
            float sine = sqrt(max(0.0, 1.0 - nh * nh));
            float fibres = (2.0 + inverse) * pow(sine, inverse) / (2.0 * PI) / (4.0 * (nl + nv - nl * nv) + 1e-4) * nl;
            // The directional albedo, fitted to its table (within 0.03).
            float e = (0.65 - 0.25 * four.b) * pow(1.0 - nv, mix(7.0, 1.6, four.b)) + 0.18 * four.b * four.b;
            shown = shown * (1.0 - most * e) + cloth * fibres * light;
            gathered = gathered * (1.0 - most * e) + cloth * e * lux * occlusion;
        }
        if (four.r > 0.003) {
            float rough = max(four.g, 0.03), ca = rough * rough + 0.5 * sun_radius, ca2 = ca * ca;
            // It has a face of its own, and is varnish or water (1.5 or 1.333).
            vec3 m = texture(face_map, skin_place, finer).xyz * 2.0 - 1.0;
            vec3 cn = dot(t, t) > 0.0 ? normalize(t * m.x + b * m.y + face * m.z) : n;
            float under = mix(0.04, 0.0204, woven.a);
            float cv = clamp(dot(cn, v), 0.02, 1.0), cl = max(dot(cn, sun), 0.0), ch = max(dot(cn, h), 0.0);
            vec2 s = texture(energy, vec2(cv, rough) * (31.0 / 32.0) + 0.5 / 32.0).rg;
            float e = under * s.x + s.y, dd = ch * ch * (ca2 - 1.0) + 1.0;
            float g = 0.5 / (cl * sqrt(cv * cv * (1.0 - ca2) + ca2) + cv * sqrt(cl * cl * (1.0 - ca2) + ca2) + 1e-5);
            float fc = under + (1.0 - under) * pow(1.0 - vh, 5.0);
            vec3 cr = reflect(-v, cn);
            float over = min(1.0, open_towards(field, cr) / clamp(0.5 + 0.75 * max(dot(cr, face), 0.0), 0.5, 1.0));
            over *= 1.0 - (1.0 - occlusion) * (0.4 + 0.6 * rough);
            vec3 mirrored = sky_in(cr, rough) * over + room * (1.0 - over);
            vec3 coat = e * mirrored + ca2 / (PI * dd * dd) * g * fc * cl * light;
            shown = shown * (1.0 - four.r * e) + four.r * coat;
            gathered *= 1.0 - four.r * e;
        }
        shown += texture(glow_map, skin_place, finer).rgb * glow_gain;
        vec4 rear = vec4(1.0, 0.0, 0.0, 0.0);
        if (open_known > 0.0 && max(brushed.a, four.a) > 0.003)
            rear = textureLod(openness, (position - face * open_step - open_low) / open_size, 0.0);
        if (brushed.a > 0.003) {
            // A pane: what lies straight behind, in its colour; the sky or the room stands for it.
            float straight = brushed.a * (1.0 - metal) * (1.0 - first - second);
            float ahead = min(1.0, open_towards(rear, -v) / clamp(0.5 + 0.75 * max(dot(-v, face), 0.0), 0.5, 1.0));
            vec3 beyond = sky_in(-v, roughness) * ahead + room * (1.0 - ahead);
            vec3 body = diffuse / PI * nl * light;
            shown += straight * base * beyond - brushed.a * body;
            gathered -= brushed.a * diffuse * lux * bounced;
        }
        vec3 behind = irradiance(-n) / PI * open_towards(rear, -n) + sun_light / PI * max(dot(-n, sun), 0.0);
        // What goes through is not thrown back (KHR_materials_diffuse_transmission).
        shown += four.a * ((1.0 - metal) * (1.0 - first - second) * base * behind - diffuse / PI * nl * light);
        gathered -= four.a * diffuse * lux * bounced;
    }
#endif
#ifdef MOVING
    if (open_known > 0.0) open = open_towards(textureLod(clear_sky, beside, 0.0), n);
#endif
    colour = vec4(shown, open);
    around = vec4(gathered, 1.0);
#ifndef MOVING
    colour.a = around.a = 0.0;
    if (presumed > 0.0 && open_known > 0.0) {
        // As much as so many frames of three directions are expected to bring here.
        around.a = presumed * 0.75 * irradiance(n).g / max(harmonics[0].g, 1e-6);
        colour.a = around.a * open_towards(textureLod(clear_sky, beside, 0.0), n);
    }
    for (int k = 0; k < 3; ++k) {
        float weight = open_sample[k].w * max(dot(n, open_sample[k].xyz), 0.0);
        around.a += weight;
        if (weight > 0.0) colour.a += weight * open_share(k);
    }
    guide = vec4(face, length(eye - at));
#endif
}
