import { INestApplication, RequestMethod } from '@nestjs/common';
import { METHOD_METADATA, PATH_METADATA } from '@nestjs/common/constants';
import { DiscoveryService, MetadataScanner } from '@nestjs/core';
import { ALLOW } from './allow';

/** Throws an Error that names the handlers that do not say who may call them, so that none can be forgotten. */
export function assertEveryHandlerAllows(app: INestApplication): void {
  const scanner = new MetadataScanner();
  const silent: string[] = [];
  for (const { instance, metatype } of app.get(DiscoveryService).getControllers()) {
    const prototype = Object.getPrototypeOf(instance) as Record<string, object>;
    for (const name of scanner.getAllMethodNames(prototype)) {
      const handler = prototype[name]!;
      if (Reflect.getMetadata(PATH_METADATA, handler) === undefined) continue;
      const method = RequestMethod[Reflect.getMetadata(METHOD_METADATA, handler) as number] ?? 'GET';
      if (Reflect.getMetadata(ALLOW, handler) === undefined) silent.push(`${method} ${String(metatype?.name)}.${name}`);
    }
  }
  if (silent.length > 0) throw new Error(`These handlers do not say who may call them: ${silent.join(', ')}`);
}
